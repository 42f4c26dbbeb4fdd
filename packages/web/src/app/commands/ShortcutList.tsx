import { Kbd, Modal } from '@mantine/core';
import { SHORTCUTS } from './shortcuts';
import styles from './commands.module.css';

export function ShortcutList({ onClose }: { readonly onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title="Keyboard shortcuts" transitionProps={{ duration: 0 }}>
      {SHORTCUTS.map(({ group, keys }) => (
        <section key={group}>
          <h3 className={styles.group}>{group}</h3>
          <table className={styles.keys}>
            <tbody>
              {keys.map(([key, words]) => (
                <tr key={key + words}>
                  <th scope="row">
                    <Kbd size="xs">{key}</Kbd>
                  </th>
                  <td>{words}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
      <p className="quiet">On a Mac, use Cmd for Ctrl. With the mouse, drag a wire’s disc along its row.</p>
    </Modal>
  );
}
