import { Button, Menu } from '@mantine/core';
import { IconFileExport } from '@tabler/icons-react';
import { Fragment, useEffect, useState } from 'react';
import type { EXPORT_GROUPS, ExportFormat } from '@roof-chart/core/outputs/exports';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useAnnounce } from '../../ui/announcer';
import { downloadBlob, downloadText } from '../../ui/download';
import { pngOf } from '../../ui/pngOf';
import { useWorkbench } from '../../state/workbench';

interface Exports {
  readonly groups: typeof EXPORT_GROUPS;
  readonly formats: readonly ExportFormat[];
  readonly fileName: (name: string, ending: string) => string;
}

interface FormatItemsProps {
  readonly format: ExportFormat;
  readonly isThere: boolean;
  readonly onSave: (format: ExportFormat) => void;
  readonly onSavePng: (format: ExportFormat) => void;
}

/** A format in the menu; a picture also as pixels. */
function FormatItems({ format, isThere, onSave, onSavePng }: FormatItemsProps) {
  const { words, ending } = format;
  return (
    <>
      <Menu.Item disabled={!isThere} rightSection={<Ending text={ending} />} onClick={() => onSave(format)}>
        {words}
      </Menu.Item>
      {ending.endsWith('.svg') && (
        <Menu.Item disabled={!isThere} rightSection={<Ending text={ending.replace('.svg', '.png')} />} onClick={() => onSavePng(format)}>
          {words.replace('SVG', 'PNG')}
        </Menu.Item>
      )}
    </>
  );
}

/** The ending of a file's name, in a column of its own. */
const Ending = ({ text }: { readonly text: string }) => <span className="quiet num">{text}</span>;

/** The plan as files for programs and tables; the writers come when the menu is first opened. */
export function ExportMenu({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const announce = useAnnounce();
  const [opened, setOpened] = useState(false);
  const [exports, setExports] = useState<Exports | null>(null);
  useEffect(() => {
    if (!opened || exports) return;
    void import('@roof-chart/core/outputs/exports').then(({ EXPORT_FORMATS, EXPORT_GROUPS: groups, fileName }) =>
      setExports({ groups, formats: EXPORT_FORMATS, fileName }),
    );
  }, [opened, exports]);
  const save = (format: ExportFormat) => {
    const text = format.write(plan, sheets);
    if (!exports || text === undefined) return;
    const name = exports.fileName(plan.name, format.ending);
    downloadText(name, text, format.type);
    announce(`Saved ${name}`);
  };
  const savePng = async (format: ExportFormat) => {
    const svg = format.write(plan, sheets);
    if (!exports || svg === undefined) return;
    const name = exports.fileName(plan.name, format.ending.replace('.svg', '.png'));
    downloadBlob(name, await pngOf(svg));
    announce(`Saved ${name}`);
  };
  const written = opened && exports ? exports.formats.map((format) => ({ format, there: format.write(plan, sheets) !== undefined })) : [];
  return (
    <Menu opened={opened} onChange={setOpened} position="bottom-end">
      <Menu.Target>
        <Button variant="default" leftSection={<IconFileExport size={15} />}>
          Export
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {written.length === 0 && <Menu.Label>Preparing…</Menu.Label>}
        {exports?.groups.map((group) => (
          <Fragment key={group}>
            <Menu.Label>{group}</Menu.Label>
            {written
              .filter(({ format }) => format.group === group)
              .map(({ format, there }) => (
                <FormatItems key={format.id} format={format} isThere={there} onSave={save} onSavePng={(one) => void savePng(one)} />
              ))}
          </Fragment>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
