/** Capture plans, what a campus has settled, and every edit of the timetable with what it takes to undo it. */
export const up = `
ALTER TABLE rooms
  ADD building text NOT NULL DEFAULT '',
  ADD open_to_instructors boolean NOT NULL DEFAULT true,
  ADD retired boolean NOT NULL DEFAULT false;

-- Two terms may not share a day: a date belongs to one term, or to none.
ALTER TABLE terms ADD CONSTRAINT terms_apart EXCLUDE USING gist (daterange(teaching_from, teaching_to, '[]') WITH &&);

CREATE TABLE campus_settings (
  the_one boolean PRIMARY KEY DEFAULT true CHECK (the_one),
  opens text NOT NULL DEFAULT '08:00' CHECK (opens ~ '^([01][0-9]|2[0-3]):[0-5][0-9]$'),
  closes text NOT NULL DEFAULT '21:00' CHECK (closes ~ '^([01][0-9]|2[0-3]):[0-5][0-9]$'),
  -- minutes past the hour at which captures usually start
  usual_starts integer[] NOT NULL DEFAULT '{0,30}' CHECK (cardinality(usual_starts) > 0),
  instructors_from text NOT NULL DEFAULT '08:00',
  instructors_to text NOT NULL DEFAULT '18:00',
  instructors_days_ahead integer NOT NULL DEFAULT 120 CHECK (instructors_days_ahead > 0),
  CHECK (opens < closes), CHECK (instructors_from < instructors_to)
);
INSERT INTO campus_settings DEFAULT VALUES;

CREATE TABLE capture_plans (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  term_id uuid NOT NULL REFERENCES terms,
  section_id uuid NOT NULL REFERENCES sections,
  room_id uuid NOT NULL REFERENCES rooms,
  presenter_id uuid NOT NULL REFERENCES people,
  title text NOT NULL DEFAULT '',
  inputs text[] NOT NULL CHECK (cardinality(inputs) > 0),
  told uuid[] NOT NULL DEFAULT '{}',
  weekdays integer[] NOT NULL,
  start text NOT NULL CHECK (start ~ '^([01][0-9]|2[0-3]):[0-5][0-9]$'),
  minutes integer NOT NULL CHECK (minutes BETWEEN 2 AND 480),
  weeks jsonb NOT NULL,
  from_day date,
  until jsonb NOT NULL,
  left_out date[] NOT NULL DEFAULT '{}',
  planned_by uuid REFERENCES people,
  -- a plan whose captures have all gone to other plans, or were taken back
  ended boolean NOT NULL DEFAULT false
);
CREATE INDEX capture_plans_section ON capture_plans (section_id);
CREATE INDEX capture_plans_term ON capture_plans (term_id);

ALTER TABLE captures
  ADD plan_id uuid REFERENCES capture_plans,
  -- its date in the plan's rule; with the plan it names the capture even when it was moved
  ADD plan_date date,
  -- what was changed by hand for this date alone
  ADD own text[] NOT NULL DEFAULT '{}',
  ADD CONSTRAINT captures_plan_date UNIQUE (plan_id, plan_date) DEFERRABLE INITIALLY DEFERRED,
  ADD CHECK ((plan_id IS NULL) = (plan_date IS NULL));

-- Captures of one edit may pass through each other's places: checked when the edit is whole.
ALTER TABLE captures DROP CONSTRAINT one_capture_a_room, ADD CONSTRAINT one_capture_a_room
  EXCLUDE USING gist (room_id WITH =, held WITH &&) WHERE (state NOT IN ('left_out', 'cancelled')) DEFERRABLE INITIALLY IMMEDIATE;

CREATE TABLE timetable_edits (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  -- order of edits; campus time may stand still
  seq bigint GENERATED ALWAYS AS IDENTITY,
  at timestamptz NOT NULL,
  actor_id uuid REFERENCES people,
  kind text NOT NULL,
  sentence text NOT NULL,
  -- rows as they were: {captures: {created: [ids], before: [rows]}, plans: {…}}
  before jsonb NOT NULL,
  capture_ids uuid[] NOT NULL,
  section_ids uuid[] NOT NULL,
  undone_at timestamptz,
  undone_by uuid REFERENCES people
);
CREATE INDEX timetable_edits_seq ON timetable_edits (seq DESC);
CREATE INDEX timetable_edits_captures ON timetable_edits USING gin (capture_ids);
CREATE INDEX timetable_edits_sections ON timetable_edits USING gin (section_ids);
`

export const down = `
DROP TABLE timetable_edits; ALTER TABLE captures DROP plan_id, DROP plan_date, DROP own; DROP TABLE capture_plans; DROP TABLE campus_settings;
ALTER TABLE terms DROP CONSTRAINT terms_apart; ALTER TABLE rooms DROP building, DROP open_to_instructors, DROP retired;`
