/** A last question before something that cannot be taken back: what it does, yes, no. */
export function Sure({
  question,
  says,
  yes,
  no,
  isBusy,
  onAnswer,
}: {
  question: string;
  says: string;
  yes: string;
  no: string;
  isBusy: boolean;
  onAnswer: (isSure: boolean) => void;
}) {
  return (
    <div className="w-full space-y-2">
      <p className="font-semibold">{question}</p>
      <p className="text-soft">{says}</p>
      <p className="flex gap-3">
        <button type="button" className="control" disabled={isBusy} onClick={() => onAnswer(true)}>
          {yes}
        </button>
        <button type="button" className="control" onClick={() => onAnswer(false)}>
          {no}
        </button>
      </p>
    </div>
  );
}
