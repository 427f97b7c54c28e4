/** The one place that talks to the server. */
import createClient from 'openapi-fetch';
import type { components, paths } from './api.gen';
import { build } from './build.svelte';
import { today } from './days';
import { preferences } from './preferences.svelte';

type Schemas = components['schemas'];
export type Assessment = Schemas['Judged'];
export type RigSummary = Schemas['RigSummary'];
export type Stage = Schemas['Stage'];
export type Value = Schemas['Value'];
export type Finding = Schemas['Finding'];
export type NextStep = Schemas['NextStep'];
export type Action = Schemas['Action'];
export type EntryDraft = Schemas['EntryDraft'];
export type Entry = Schemas['Entry'];
/** One kind of reading. */
export type ReadingOf<K extends EntryDraft['reading']['kind']> = Extract<
  EntryDraft['reading'],
  { kind?: K }
>;
export type ParsedJot = Schemas['ParsedJot'];
/** A problem of the server; or the page's own: no answer, a row that cannot be read. */
export type Problem = Omit<Schemas['Problem'], 'code' | 'heard'> & {
  heard?: Schemas['Problem']['heard'];
  code: Schemas['Problem']['code'] | 'offline' | 'bad_row' | 'nothing_fitted';
};
/** What was recorded, with the assessment that follows and its tag. */
export type Recorded = Schemas['RecordedEntries'] & { tag: string | null };
export type GlossaryTerm = Schemas['GlossaryTerm'];
export type Known = Schemas['Known'];
export type KnownNumber = Schemas['KnownNumber'];
export type FirstAnswers = Schemas['FirstAnswers'];
export type FirstRunOut = Schemas['FirstRunOut'];
export type HeldBow = Schemas['HeldBow'];
export type Silhouette = Schemas['Silhouette'];
export type RigOut = Schemas['RigOut'];
export type RigDraft = Schemas['RigDraft'];
export type History = Schemas['History'];
export type Rule = Schemas['RuleOut'];
export type JotWord = Schemas['JotWord'];
export type OwnWords = Schemas['OwnWordsOut'];
export type SubjectOut = Schemas['SubjectOut'];
export type PartOut = Schemas['PartOut'];
export type LogbookBrought = Schemas['LogbookBrought'];
export type ChoosingBoard = Schemas['ChoosingBoard'];
export type FamilyBoard = Schemas['FamilyBoard'];
export type ShotDrawing = Schemas['ShotDrawing'];
export type ShownArrow = Schemas['ShownArrow'];
export type SpineBoard = Schemas['SpineBoard'];
export type Trial = Schemas['Trial'];
export type InstrumentOut = Schemas['InstrumentOut'];
export type Term = Schemas['Term'];
export type FlightBoard = Schemas['FlightBoard'];
export type PlanBoard = Schemas['PlanBoard'];
export type TablesBoard = Schemas['TablesBoard'];
export type RangeBoard = Schemas['RangeBoard'];
export type KeptSound = Schemas['Kept'];
export type HeardSound = Schemas['Heard'];
export type Hearing = Schemas['Hearing'];
export type SpeedHearing = Schemas['SpeedHearing'];
export type TapHearing = Schemas['TapHearing'];
export type PairBoard = Schemas['PairBoard'];
export type ShaftsBoard = Schemas['ShaftsBoard'];
export type Trace = Schemas['Trace'];
export type WholeSound = Schemas['WholeSound'];
export type Spectrogram = Schemas['SpectrogramOut'];
export type ClockCheck = Schemas['ClockCheck'];
export type FieldShots = Schemas['FieldShots'];
export type FlightTrials = Schemas['Proved'];
export type FlightTest = Schemas['TestLine'];
export type LeverLine = Schemas['LeverLine'];
export type Change = Schemas['Change'];
export type Hit = Schemas['Hit'];
export type WorkOrder = Schemas['WorkOrder'];
export type Station = Schemas['Station'];
export type TaperPlan = Schemas['TaperPlan'];
export type MatchedSet = Schemas['MatchedSet'];
export type QuiverTable = Schemas['QuiverTable'];
export type ColumnAs = Schemas['ColumnAs'];
export type QuiverRow = Schemas['QuiverRow'];
export type Tried = NonNullable<paths['/api/rigs/{rig}/arrow-trial']['get']['parameters']['query']>;
export type TaperAsked = NonNullable<
  paths['/api/rigs/{rig}/taper-plan']['get']['parameters']['query']
>;
export type Asking = NonNullable<
  paths['/api/rigs/{rig}/choosing-board']['get']['parameters']['query']
>;
export type StageKey = Stage['key'];
/** Geometry of one stage's pages. */
export type AnyPage = NonNullable<Assessment['page']>;
export type PageOf<K extends StageKey> = Extract<AnyPage, { stage?: K }>;
export type SubjectKind = EntryDraft['subject']['kind'];
export type PartKind = Schemas['FittedPart']['part'];

export type Answer<T> = { data: T; problem?: undefined } | { data?: undefined; problem: Problem };
/** The same of what takes long: until it is there, how far it has come. */
export type LongAnswer<T> =
  (Answer<T> & { share?: undefined }) | { share: number; data?: undefined; problem?: undefined };
type NotYet = Schemas['NotYet'];

/** What is known of a rig: something new, or that nothing was recorded since the tag was given. */
export type Asked = Answer<{ assessment: Assessment | null; tag: string | null }>;

const client = createClient<paths>({ baseUrl: '' });

client.use({
  onRequest({ request }) {
    request.headers.set('x-lyrandis-units', preferences.units);
  },
  onResponse({ response }) {
    build.notice(response);
  },
});

export const OFFLINE: Problem = {
  type: 'about:blank',
  title: 'offline',
  status: 0,
  code: 'offline',
  reason: 'Lyrandis does not answer.',
  instruction: 'See that it is still running. What you typed is kept here.',
  guesses: [],
};

type Raw<T> = Promise<{ data?: T; error?: unknown; response: Response }>;

/** Turn a call into data or a problem; never throw. */
async function answer<T>(call: Raw<T>): Promise<Answer<T>> {
  try {
    const { data, error } = await call;
    if (data !== undefined) return { data };
    return { problem: (error as Problem | undefined) ?? OFFLINE };
  } catch {
    return { problem: OFFLINE };
  }
}

/** The same of a question that takes long: asked again while it is not there yet. */
async function long<T>(call: Raw<T | NotYet>): Promise<LongAnswer<T>> {
  try {
    const { data, error, response } = await call;
    if (response.status === 202) return { share: (data as NotYet).share };
    if (data !== undefined) return { data: data as T };
    return { problem: (error as Problem | undefined) ?? OFFLINE };
  } catch {
    return { problem: OFFLINE };
  }
}

/** The same, with the tag of the assessment that came with it. */
async function tagged<T extends object>(call: Raw<T>): Promise<Answer<T & { tag: string | null }>> {
  try {
    const { data, error, response } = await call;
    if (data !== undefined) return { data: { ...data, tag: response.headers.get('etag') } };
    return { problem: (error as Problem | undefined) ?? OFFLINE };
  } catch {
    return { problem: OFFLINE };
  }
}

const PLURALS = {
  archer: '/api/archers',
  bow: '/api/bows',
  string: '/api/strings',
  arrow_set: '/api/arrow-sets',
} as const;

const asSound = <B>(rig: string, mark: string, body: B) => ({
  params: { path: { rig, mark } },
  body,
});

export const api = {
  rigs: () => answer(client.GET('/api/rigs')),
  /** Ask for a rig with one page; with the tag of an earlier answer it says when nothing changed. */
  rig: async (rig: string, page: StageKey | null, tag: string | null): Promise<Asked> => {
    try {
      const { data, error, response } = await client.GET('/api/rigs/{rig}', {
        params: { path: { rig }, query: page ? { page } : {} },
        headers: tag ? { 'If-None-Match': tag } : {},
      });
      if (response.status === 304) return { data: { assessment: null, tag } };
      if (!data) return { problem: (error as Problem | undefined) ?? OFFLINE };
      return { data: { assessment: data, tag: response.headers.get('etag') } };
    } catch {
      return { problem: OFFLINE };
    }
  },
  choosingBoard: (rig: string, asked: Asking) =>
    long(client.GET('/api/rigs/{rig}/choosing-board', { params: { path: { rig }, query: asked } })),
  shot: (rig: string) => long(client.GET('/api/rigs/{rig}/shot', { params: { path: { rig } } })),
  spineBoard: (rig: string) =>
    long(client.GET('/api/rigs/{rig}/spine-board', { params: { path: { rig } } })),
  instruments: () => answer(client.GET('/api/instruments')),
  order: (rig: string) =>
    answer(client.GET('/api/rigs/{rig}/order', { params: { path: { rig } } })),
  /** What the evidence says; the first time of a rig its curves are reckoned. */
  flight: (rig: string) =>
    long(client.GET('/api/rigs/{rig}/flight', { params: { path: { rig } } })),
  /** What a wrong guess of the distance costs, and slopes. */
  crawlRanges: (rig: string) =>
    long(client.GET('/api/rigs/{rig}/crawl-ranges', { params: { path: { rig } } })),
  crawlTables: (rig: string) =>
    long(client.GET('/api/rigs/{rig}/crawl-tables', { params: { path: { rig } } })),
  /** Where point-on lies with other anchors and arrows. */
  crawlPlan: (rig: string, wished_m: number) =>
    long(
      client.GET('/api/rigs/{rig}/crawl-plan', {
        params: { path: { rig }, query: { wished_m } },
      }),
    ),
  /** Shots that come back from the field helper: looked at, or recorded. */
  fieldShots: (rig: string, body: Schemas['FieldText']) =>
    answer(client.POST('/api/rigs/{rig}/field-shots', { params: { path: { rig } }, body })),
  /** Keep a recording on this machine. */
  keepSound: (data: Blob, name: string, lossy: boolean) =>
    answer(
      client.POST('/api/sounds', {
        params: { query: { name: name.slice(-120), lossy } },
        body: data as unknown as string,
        bodySerializer: (body) => body as unknown as Blob,
        headers: { 'content-type': 'application/octet-stream' },
      }),
    ),
  sounds: () => answer(client.GET('/api/sounds')),
  forgetSound: (mark: string) =>
    answer(
      client
        .DELETE('/api/sounds/{mark}', { params: { path: { mark } } })
        .then((raw) => ({ ...raw, data: raw.error ? undefined : true })),
    ),
  hearSound: (rig: string, mark: string, body: Schemas['ToHear']) =>
    long(client.POST('/api/rigs/{rig}/sounds/{mark}/hear', asSound(rig, mark, body))),
  timeSound: (rig: string, mark: string, body: Schemas['ToTime']) =>
    long(client.POST('/api/rigs/{rig}/sounds/{mark}/time', asSound(rig, mark, body))),
  tapSound: (rig: string, mark: string, body: Schemas['ToTap']) =>
    long(client.POST('/api/rigs/{rig}/sounds/{mark}/tap', asSound(rig, mark, body))),
  soundTraces: (mark: string, at: number[]) =>
    long(client.GET('/api/sounds/{mark}/traces', { params: { path: { mark }, query: { at } } })),
  spectrogram: (mark: string, at_s: number) =>
    long(
      client.GET('/api/sounds/{mark}/spectrogram', { params: { path: { mark }, query: { at_s } } }),
    ),
  soundPair: (rig: string, before: string, after: string) =>
    long(
      client.GET('/api/rigs/{rig}/sounds/pair', {
        params: { path: { rig }, query: { before, after } },
      }),
    ),
  tapped: (rig: string, width_lbf: number) =>
    long(client.GET('/api/rigs/{rig}/tapped', { params: { path: { rig }, query: { width_lbf } } })),
  /** The simulated microphone records this rig. */
  pretendSound: (rig: string, body: Schemas['Pretend']) =>
    answer(
      client.POST('/api/rigs/{rig}/instruments/microphone', { params: { path: { rig } }, body }),
    ),
  flightTrials: () => answer(client.GET('/api/flight-trials')),
  tryArrow: (rig: string, tried: Tried) =>
    long(client.GET('/api/rigs/{rig}/arrow-trial', { params: { path: { rig }, query: tried } })),
  taperPlan: (rig: string, asked: TaperAsked) =>
    long(client.GET('/api/rigs/{rig}/taper-plan', { params: { path: { rig }, query: asked } })),
  matchedSet: (rig: string, count: number) =>
    long(
      client.GET('/api/rigs/{rig}/matched-set', { params: { path: { rig }, query: { count } } }),
    ),
  readQuiverTable: (text: string, columns: ColumnAs[] | null = null) =>
    answer(client.POST('/api/quiver-tables', { body: { text, columns } })),
  /** A rig's entries, all or those newer than a revision. */
  history: (rig: string, after: number) =>
    answer(client.GET('/api/rigs/{rig}/entries', { params: { path: { rig }, query: { after } } })),
  /** Read a first run's answers as they stand; nothing is stored. */
  firstRun: (body: FirstAnswers) =>
    answer(client.POST('/api/first-run', { body }) as Raw<FirstRunOut>),
  /** What is known of a rig now, and what would make it surer. */
  known: (rig: string) =>
    answer(client.GET('/api/rigs/{rig}/known', { params: { path: { rig } } })),
  bowKinds: () => answer(client.GET('/api/bow-kinds')),
  createRig: (body: RigDraft) => answer(client.POST('/api/rigs', { body })),
  record: (entries: EntryDraft[], rig: string, seen: number | null, page: StageKey | null) =>
    tagged(client.POST('/api/entries', { body: { entries, rig, seen, page } })),
  /** Take entries back in one go; taking back a retraction puts its entry back. */
  takeBack: (entries: Schemas['Taking'][], rig: string, page: StageKey | null) =>
    tagged(client.POST('/api/retractions', { body: { entries, rig, page } })),
  /** Read a line as this reader means it: in the reader's units, said on the reader's day. */
  parse: (
    text: string,
    rig: string | null,
    stage: StageKey | null,
    weight_lbf: number | null = null,
  ) =>
    answer(
      client.POST('/api/readings/parse', {
        body: { text, rig, stage, weight_lbf, units: preferences.units, today: today() },
      }),
    ),
  /** Read what was filled into the form of a word. */
  parseForm: (row: string, fields: Record<string, string>, rig: string | null) =>
    answer(
      client.POST('/api/readings/parse', {
        body: { text: '', row, fields, rig, units: preferences.units, today: today() },
      }),
    ),
  clock: () => answer(client.GET('/api/clock')),
  words: () =>
    answer(client.GET('/api/readings/words', { params: { query: { units: preferences.units } } })),
  /** Two or three lines of a stage that a rig lacks. */
  examples: (rig: string, stage: StageKey | null) =>
    answer(
      client.GET('/api/readings/examples', {
        params: { query: { rig, stage, units: preferences.units } },
      }),
    ),
  ownWords: () => answer(client.GET('/api/readings/own')),
  /** Keep a line that could not be read, on this machine. */
  keepRefused: (line: string) =>
    answer(client.POST('/api/readings/own/refused', { body: { line } })),
  keepsRefused: (keep: boolean) =>
    answer(client.PUT('/api/readings/own/keeps', { body: { keep } })),
  wipeRefused: (line: number | null) =>
    answer(
      client
        .DELETE('/api/readings/own/refused', { params: { query: { line } } })
        .then((raw) => ({ ...raw, data: raw.error ? undefined : true })),
    ),
  teach: (line: string, row: string, fields: Record<string, string>, rig: string | null) =>
    answer(
      client.POST('/api/readings/own/taught', {
        body: { line, row, fields, rig, units: preferences.units },
      }),
    ),
  unteach: (taught: number) =>
    answer(
      client
        .DELETE('/api/readings/own/taught/{taught}', { params: { path: { taught } } })
        .then((raw) => ({ ...raw, data: raw.error ? undefined : true })),
    ),
  glossary: () => answer(client.GET('/api/glossary')),
  terms: () => answer(client.GET('/api/terms')),
  rules: () => answer(client.GET('/api/rules')),
  loadDemo: () => answer(client.POST('/api/demo')),
  subjects: (kind: PartKind) => answer(client.GET(PLURALS[kind]) as Raw<SubjectOut[]>),
  createSubject: (kind: PartKind, name: string, alike = false) =>
    answer(client.POST(PLURALS[kind], { body: { name, alike, readings: [] } }) as Raw<SubjectOut>),
  parts: () => answer(client.GET('/api/parts')),
  /** Give a subject another name; `alike` where another of the kind is meant to be called so too. */
  rename: (subject: EntryDraft['subject'], name: string, alike: boolean, id: string) => {
    const draft = { subject, reading: { kind: 'named' as const, name, alike }, id };
    return answer(client.POST('/api/entries', { body: { entries: [draft] } }));
  },
  /** Bring a saved logbook in, or only look at what it would bring. */
  bringLogbook: (file: Schemas['LogbookDraft']) =>
    answer(client.POST('/api/logbooks', { body: file })),
};
