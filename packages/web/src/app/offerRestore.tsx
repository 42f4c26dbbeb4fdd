import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';

/** Reports that the open plan was deleted elsewhere and offers to restore it. */
export function offerRestore(planId: string, restore: () => void): void {
  const id = `gone-${planId}`;
  notifications.show({
    id,
    autoClose: false,
    color: 'brick',
    message: (
      <span>
        This plan was deleted in another window. Your latest edits are kept here.{' '}
        <Button
          variant="outline"
          onClick={() => {
            notifications.hide(id);
            restore();
          }}
        >
          Restore the plan
        </Button>
      </span>
    ),
  });
}
