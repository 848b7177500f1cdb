/** What is brought in from elsewhere: class data and timetables, looked over before they are taken. */
export const up = `
ALTER TABLE terms ADD source_id text UNIQUE;
ALTER TABLE courses ADD source_id text UNIQUE;
ALTER TABLE sections ADD source_id text UNIQUE;
ALTER TABLE people ADD source_id text UNIQUE;
ALTER TABLE class_list ADD source_id text UNIQUE;

-- Where a timetable comes from, again and again: its columns are remembered, and what it said last.
CREATE TABLE timetable_sources (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  term_id uuid NOT NULL REFERENCES terms ON DELETE CASCADE,
  name text NOT NULL,
  mapping jsonb NOT NULL DEFAULT '{}',
  UNIQUE (term_id, name)
);
CREATE TABLE timetable_source_plans (
  source_id uuid NOT NULL REFERENCES timetable_sources ON DELETE CASCADE,
  key text NOT NULL,
  wanted jsonb NOT NULL,
  PRIMARY KEY (source_id, key)
);
ALTER TABLE capture_plans ADD source_id uuid REFERENCES timetable_sources ON DELETE SET NULL, ADD source_key text;
CREATE INDEX capture_plans_source ON capture_plans (source_id, source_key);

CREATE TABLE imports (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  kind text NOT NULL CHECK (kind IN ('class data', 'timetable', 'roll-over')),
  state text NOT NULL CHECK (state IN ('waiting', 'reading', 'looked over', 'taking in', 'taken in', 'failed', 'dropped')),
  name text NOT NULL,
  term_id uuid REFERENCES terms ON DELETE CASCADE,
  source_id uuid REFERENCES timetable_sources ON DELETE SET NULL,
  store_keys jsonb NOT NULL DEFAULT '[]',
  options jsonb NOT NULL DEFAULT '{}',
  result jsonb,
  step text NOT NULL DEFAULT '',
  percent double precision NOT NULL DEFAULT 0,
  sentence text NOT NULL DEFAULT '',
  edit_id uuid REFERENCES timetable_edits ON DELETE SET NULL,
  asked_by uuid NOT NULL REFERENCES people,
  asked_at timestamptz NOT NULL DEFAULT now(),
  ended_at timestamptz
);
CREATE INDEX imports_asked ON imports (asked_at DESC);
`

export const down = `
DROP TABLE imports; ALTER TABLE capture_plans DROP source_id, DROP source_key; DROP TABLE timetable_source_plans, timetable_sources;
ALTER TABLE terms DROP source_id; ALTER TABLE courses DROP source_id; ALTER TABLE sections DROP source_id; ALTER TABLE people DROP source_id; ALTER TABLE class_list DROP source_id;`
