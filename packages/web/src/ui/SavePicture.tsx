import clsx from 'clsx';
import { Button, Menu } from '@mantine/core';
import { IconPhotoDown } from '@tabler/icons-react';
import { useAnnounce } from './announcer';
import { downloadBlob, downloadText } from './download';
import { pngOf } from './pngOf';
import styles from './SavePicture.module.css';

/** The name of a picture's file.
 *  @example pictureName('Current of 3V3') // 'current-of-3v3' */
const pictureName = (label: string): string =>
  label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || 'chart';

/** Saves a chart as an image file.
 *  @param svg creates the image on demand */
export function SavePicture({ label, svg }: { readonly label: string; readonly svg: () => string }) {
  const announce = useAnnounce();
  const name = pictureName(label);
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <Button
          size="compact-xs"
          variant="subtle"
          color="dark.6"
          leftSection={<IconPhotoDown size={15} />}
          aria-label={`Save as image: ${label}`}
          className={clsx(styles.button)}
        >
          Save as image
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item
          onClick={() => {
            downloadText(`${name}.svg`, svg(), 'image/svg+xml');
            announce(`Saved ${name}.svg`);
          }}
        >
          As SVG
        </Menu.Item>
        <Menu.Item
          onClick={() =>
            void pngOf(svg())
              .then((blob) => downloadBlob(`${name}.png`, blob))
              .then(() => announce(`Saved ${name}.png`))
          }
        >
          As PNG
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
