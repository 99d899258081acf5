import { useState } from "react";
import { api, Refused, type Schemas, told } from "../../api/client";
import { heatersWords } from "../../words/heaters";

type Look = Schemas["LookOut"];
type Made = Schemas["HeatersOut"];

/** A chart on its way in: its text, its columns as read, and the answer of the import. */
export function useChartImport(works: string, onMade: () => Promise<unknown>) {
  const [text, setText] = useState("");
  const [look, setLook] = useState<Look | null>(null);
  const [columns, setColumns] = useState<Record<string, string>>({});
  const [fixed, setFixed] = useState<Record<string, string>>({});
  const [name, setName] = useState("");
  const [source, setSource] = useState("");
  const [factor, setFactor] = useState<string | null>("1");
  const [made, setMade] = useState<Made | null>(null);
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const asked = async (work: () => Promise<void>) => {
    try {
      await work();
      setRefusal(null);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefusal(error);
    }
  };
  const seen = (next: string) => {
    setText(next);
    setMade(null);
    if (!next.trim()) {
      setLook(null);
      return;
    }
    void asked(async () => {
      const found = await told(
        api.POST("/api/w/{works}/heaters/look", {
          params: { path: { works } },
          body: { text: next },
        }),
      );
      setLook(found);
      setColumns(Object.fromEntries(found.fields.map((field) => [field.field, field.guess])));
    });
  };
  const take = () =>
    void asked(async () => {
      const done = await told(
        api.POST("/api/w/{works}/heaters", {
          params: { path: { works } },
          body: {
            text,
            columns: Object.fromEntries(Object.entries(columns).filter(([, heading]) => heading)),
            fixed: Object.fromEntries(Object.entries(fixed).filter(([, value]) => value.trim())),
            name: name.trim() || heatersWords.chart,
            source,
            factor: factor ?? "1",
          },
        }),
      );
      setMade(done);
      await onMade();
    });
  return {
    text,
    look,
    columns,
    fixed,
    name,
    source,
    factor,
    made,
    refusal,
    seen,
    take,
    setColumns,
    setFixed,
    setName,
    setSource,
    setFactor,
  };
}
