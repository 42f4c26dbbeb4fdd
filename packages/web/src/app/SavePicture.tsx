import { ActionIcon, Menu } from '@mantine/core';
import { IconPhotoDown } from '@tabler/icons-react';
import { announce } from './announcer';
import { downloadBlob, downloadText } from './download';
import { pngOf } from './pngOf';

/** The name of a picture's file.
 *  @example pictureName('Current of 3V3') // 'current-of-3v3' */
const pictureName = (label: string): string =>
  label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || 'chart';

/** Saves a chart as a picture file.
 *  @param svg makes the picture when it is asked for */
export function SavePicture({ label, svg }: { readonly label: string; readonly svg: () => string }) {
  const name = pictureName(label);
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon size={24} variant="subtle" color="gray" aria-label={`Save the picture: ${label}`} title="Save as a picture">
          <IconPhotoDown size={15} />
        </ActionIcon>
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
