import styles from './SkipLink.module.css';

/** Seen when the keyboard arrives at it: leads past what is in between.
 *  @param to the id of an element that can be focused */
export function SkipLink({ to, label }: { readonly to: string; readonly label: string }) {
  return (
    <a
      href={`#${to}`}
      className={styles.skip}
      onClick={(event) => {
        // The address stays: it says which view is open, and what is marked in it.
        event.preventDefault();
        document.getElementById(to)?.focus();
      }}
    >
      {label}
    </a>
  );
}
