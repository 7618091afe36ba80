import { useState } from 'react';
import { Box } from '../../ui/Box.tsx';
import { TextDiff } from '../texts/index.ts';
import { OtherSitesSheet } from './OtherSitesSheet.tsx';

interface Props {
  readonly siteId: string;
  readonly path: string;
  readonly text: string;
  readonly onClose: () => void;
}

/** A sheet beside the same one of another site, as texts. */
export function ComparedSheet({ siteId, path, text, onClose }: Props) {
  const [theirs, setTheirs] = useState<string | undefined>(undefined);
  return (
    <Box closes open onClose={onClose} title={`${path} here, and in another site`} wide>
      <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] gap-4">
        <OtherSitesSheet siteId={siteId} like={path} onText={setTheirs} />
        {theirs === text ? (
          <p role="status">Both say the same, byte for byte.</p>
        ) : (
          theirs !== undefined && (
            <div className="min-h-0 overflow-auto">
              <TextDiff path={path} before={text} after={theirs} beforeName="here" afterName="in the other site" />
            </div>
          )
        )}
      </div>
    </Box>
  );
}
