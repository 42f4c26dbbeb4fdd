import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';

/** Reports that a newer version is ready, and offers to change to it. Nothing is changed before that. */
export function offerNewVersion(change: () => void): void {
  notifications.show({
    id: 'new-version',
    autoClose: false,
    message: (
      <span>
        A new version of Roof Chart is ready. Your edits are kept.{' '}
        <Button
          variant="outline"
          onClick={() => {
            notifications.hide('new-version');
            change();
          }}
        >
          Reload
        </Button>
      </span>
    ),
  });
}
