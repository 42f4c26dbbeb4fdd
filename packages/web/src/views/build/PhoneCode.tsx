import clsx from 'clsx';
import { Button, Popover } from '@mantine/core';
import { IconDeviceMobile } from '@tabler/icons-react';
import { QRCodeSVG } from 'qrcode.react';
import { useSessionQuery } from '../../state/api';
import styles from './Build.module.css';

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])$/;

/** The address of this server for another device: the page's own where that is no loopback name. */
export function phoneOrigin({ hostname, origin }: Pick<Location, 'hostname' | 'origin'>, addresses: readonly string[]): string | undefined {
  return LOOPBACK.test(hostname) ? addresses[0] : origin;
}

/** The steps of this plan on a phone, by its camera; without a network there is nothing to show. */
export function PhoneCode({ planId }: { readonly planId: string }) {
  const session = useSessionQuery();
  const origin = phoneOrigin(location, session.data?.addresses ?? []);
  if (origin === undefined) return null;
  const address = `${origin}/plans/${encodeURIComponent(planId)}/build?mode=steps`;
  return (
    <Popover width={260} position="bottom-start" shadow="md" trapFocus>
      <Popover.Target>
        <Button variant="default" leftSection={<IconDeviceMobile size={15} />}>
          On a phone
        </Button>
      </Popover.Target>
      <Popover.Dropdown className={clsx(styles.phone)} aria-label="Step by step on a phone">
        <QRCodeSVG value={address} size={220} marginSize={2} title="Code of the address below" />
        <p>Scan the code with the camera of a phone in the same network. It opens this plan step by step.</p>
        <a href={address} className="mono">
          {address}
        </a>
      </Popover.Dropdown>
    </Popover>
  );
}
