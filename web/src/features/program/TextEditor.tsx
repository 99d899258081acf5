import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { type Diagnostic, setDiagnostics } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { EditorView, keymap, lineNumbers } from "@codemirror/view";
import { useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { programWords as w } from "../../words/program";

/** A program as text; what is wrong is marked at its place. */
export function TextEditor({
  text,
  wrong,
  onChange,
}: {
  text: string;
  wrong: readonly Schemas["WrongOut"][];
  onChange: (text: string) => void;
}) {
  const holder = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const told = useRef(onChange);
  told.current = onChange;
  const first = useRef(text);
  useEffect(() => {
    if (!holder.current) return;
    const made = new EditorView({
      parent: holder.current,
      state: EditorState.create({
        doc: first.current,
        extensions: [
          lineNumbers(),
          history(),
          keymap.of([...defaultKeymap, ...historyKeymap]),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ "aria-label": w.editText }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) told.current(update.state.doc.toString());
          }),
        ],
      }),
    });
    view.current = made;
    return () => made.destroy();
  }, []);
  useEffect(() => {
    const now = view.current;
    if (now && now.state.doc.toString() !== text)
      now.dispatch({ changes: { from: 0, to: now.state.doc.length, insert: text } });
  }, [text]);
  useEffect(() => {
    const now = view.current;
    if (!now) return;
    const { doc } = now.state;
    const marks = wrong.flatMap((one): Diagnostic[] => {
      if (one.line < 1 || one.line > doc.lines) return [];
      const line = doc.line(one.line);
      const from = Math.min(line.from + one.column - 1, line.to);
      const to = Math.min(from + Math.max(one.found.length, 1), line.to);
      return [{ from, to: Math.max(to, from), severity: "error", message: one.said }];
    });
    now.dispatch(setDiagnostics(now.state, marks));
  }, [wrong]);
  return (
    <div ref={holder} className="border border-ink bg-sheet text-base" data-testid="program-text" />
  );
}
