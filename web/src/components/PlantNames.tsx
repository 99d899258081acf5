import { Outlet, useParams } from "react-router";
import { useWorks } from "../state/session";
import { setNames, USUAL } from "../words/names";

/** Everything inside speaks in the names of the plant that is open. */
export function PlantNames() {
  const { works: slug = "" } = useParams();
  const works = useWorks(slug);
  const names = works ? { terms: works.trade_terms, lines: works.line_names } : USUAL;
  setNames(names);
  return <Outlet key={`${names.terms} ${names.lines}`} />;
}
