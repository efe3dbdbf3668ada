import { t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import type { Piece } from '../../../../core/formats/piece.ts';
import { handOver } from '../../../files/readFiles.ts';
import { Select } from '../../../ui/Select.tsx';
import { titled } from '../../../ui/SelectField.tsx';
import { useOfferedPatterns } from '../../../domain/offeredPatterns.ts';

/** MIDI that was played freely is no pattern: it can be heard as a child's take of one. */
export function PlayedCard({ piece: { played = [] }, file }: { piece: Piece; file: File }) {
  const patterns = useOfferedPatterns().data ?? [];
  const navigate = useNavigate();
  const [chosen, setChosen] = useState('');
  const free = played.filter((part) => part.free);
  if (free.length === 0) return null;
  const pattern = chosen || patterns[0]?.id;
  const hear = () => {
    handOver([file]);
    void navigate(`/take?pattern=${pattern}`);
  };
  return (
    <div className="played-card">
      <p>
        {rich`${<strong>{file.name}</strong>}: ${free.map(({ part }) => part).join(', ')} was
          played freely, so no notes are made of it. It can be heard as a take of a
          pattern.`}
      </p>
      {pattern !== undefined && (
        <div className="plan-row">
          <Select size="sm" label={t`Pattern`} value={pattern} options={titled(patterns)} onChoose={setChosen} />
          <Button size="sm" onClick={hear}>{t`Hear it as a take`}</Button>
        </div>
      )}
    </div>
  );
}
