import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';

/** Tells that the open plan was deleted elsewhere, and offers to bring it back. */
export function offerRestore(planId: string, restore: () => void): void {
  const id = `gone-${planId}`;
  notifications.show({
    id,
    autoClose: false,
    color: 'brick',
    message: (
      <span>
        This plan was deleted elsewhere. Your latest edits are kept here.{' '}
        <Button
          variant="outline"
          onClick={() => {
            notifications.hide(id);
            restore();
          }}
        >
          Bring it back
        </Button>
      </span>
    ),
  });
}
