import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, FileButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useNavigate } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import { failureWords, useOpenPlanFileMutation } from '../../state/api';
import { useWorkbench } from '../../state/workbench';
import { download } from '../../ui/download';
import type { PlanFileText } from '../../workers/planText';

/** Opens a plan file: a plan with the sheets it carries. What cannot be read of it is handed back. */
export function useOpenFile(): (file: File) => Promise<void> {
  const navigate = useNavigate();
  const [open] = useOpenPlanFileMutation();
  const { workers } = useWorkbench();
  return async (file) => {
    const tell = (message: string) => void notifications.show({ message, color: 'brick', autoClose: false });
    const text = await file.text();
    const rescued = await workers.read<PlanFileText>((reviewer) => reviewer.readPlanText(text)).catch((error: Error) => error.message);
    if (typeof rescued === 'string') return tell(`${file.name} could not be read: ${rescued} Nothing was opened.`);
    if (!rescued.ok) return tell(`${file.name}: ${rescued.fault}. Nothing was opened.`);
    const { leftovers } = rescued;
    const result = await open(rescued.document);
    if (result.error) return tell(`${file.name}: ${failureWords(result.error)}`);
    const { plan, kept } = result.data;
    const fresh = kept.filter((sheet) => sheet.how !== 'same').map((sheet) => sheet.id);
    if (fresh.length > 0) notifications.show({ message: `Sheets added to your library: ${fresh.join(', ')}.` });
    if (leftovers.length > 0) {
      const name = `${file.name.replace(/\.json$/, '')}-left-over.json`;
      download(name, leftovers);
      notifications.show({
        autoClose: false,
        message: `${counted(leftovers.length, 'entry', 'entries')} of ${file.name} could not be read and ${leftovers.length === 1 ? 'was' : 'were'} left out; the first is ${firstOrThrow(leftovers).path}: ${firstOrThrow(leftovers).fault}. The original content is saved as ${name}.`,
      });
    }
    void navigate(`/plans/${plan.id}/chart`);
  };
}

/** The button that opens a plan file; one may be dropped on the page as well. */
export function OpenFile() {
  const take = useOpenFile();
  return (
    <FileButton
      accept="application/json,.json"
      onChange={(file) => file && void take(file)}
      inputProps={{ 'aria-label': 'Plan file to open' }}
    >
      {(props) => (
        <Button variant="default" {...props}>
          Open plan file
        </Button>
      )}
    </FileButton>
  );
}
