/** The stages in order of work. A new stage is its folder and one line here. */
import { archer } from './features/archer/place';
import { arrow } from './features/arrow/place';
import { bow } from './features/bow/place';
import { crawls } from './features/crawls/place';
import { flight } from './features/flight/place';
import { listen } from './features/listen/place';
import { nock } from './features/nock/place';
import { string } from './features/string/place';

export const STAGES = [archer, bow, arrow, string, nock, flight, crawls, listen] as const;

type Both<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer A) => void
  ? A
  : never;
type Routes = Both<(typeof STAGES)[number]['routes']>;

/** Pages of all stages by their path under a rig; the first stage's stand at the rig itself too. */
export const ROUTES = Object.assign({}, ...STAGES.map((stage) => stage.routes)) as Routes;

/** Paths of all stages' pages, without the slash before them. */
export type StagePath = keyof Routes extends `/${infer P}` ? P : never;
