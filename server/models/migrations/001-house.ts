/** The first house: term, people, rooms, captures, recordings, folders, releases, placements, viewings. */
export const up = `
CREATE EXTENSION IF NOT EXISTS btree_gist;

CREATE TABLE terms (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  name text NOT NULL UNIQUE,
  zone text NOT NULL,
  teaching_from date NOT NULL,
  teaching_to date NOT NULL,
  CHECK (teaching_from <= teaching_to)
);
CREATE TABLE term_spans (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  term_id uuid NOT NULL REFERENCES terms ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind IN ('reading', 'holiday', 'exams')),
  from_day date NOT NULL,
  to_day date NOT NULL CHECK (to_day >= from_day),
  label text NOT NULL
);

CREATE TABLE people (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  subject text NOT NULL UNIQUE,
  name text NOT NULL,
  email text NOT NULL UNIQUE,
  role text NOT NULL CHECK (role IN ('staff', 'instructor', 'student')),
  barred boolean NOT NULL DEFAULT false,
  last_sign_in_at timestamptz
);

CREATE TABLE courses (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  code text NOT NULL UNIQUE,
  title text NOT NULL
);
CREATE TABLE sections (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  course_id uuid NOT NULL REFERENCES courses,
  term_id uuid NOT NULL REFERENCES terms,
  number text NOT NULL,
  UNIQUE (course_id, term_id, number)
);
CREATE TABLE class_list (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  section_id uuid NOT NULL REFERENCES sections ON DELETE CASCADE,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  role text NOT NULL CHECK (role IN ('instructor', 'assistant', 'student')),
  from_at timestamptz,
  to_at timestamptz,
  UNIQUE (section_id, person_id, role)
);
CREATE INDEX class_list_person ON class_list (person_id);

CREATE TABLE folders (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  section_id uuid NOT NULL REFERENCES sections ON DELETE CASCADE,
  parent_id uuid REFERENCES folders,
  name text NOT NULL
);
-- One root a section, and it exists because the section does.
CREATE UNIQUE INDEX folders_root ON folders (section_id) WHERE parent_id IS NULL;
CREATE FUNCTION section_folder() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO folders (section_id, name)
  SELECT NEW.id, c.code || '/' || NEW.number || ' ' || c.title FROM courses c WHERE c.id = NEW.course_id;
  RETURN NEW;
END $$;
CREATE TRIGGER section_folder AFTER INSERT ON sections FOR EACH ROW EXECUTE FUNCTION section_folder();

CREATE TABLE rooms (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  name text NOT NULL UNIQUE,
  seats integer NOT NULL CHECK (seats > 0),
  inputs text[] NOT NULL,
  turnaround_minutes integer NOT NULL DEFAULT 0 CHECK (turnaround_minutes BETWEEN 0 AND 120)
);
CREATE TABLE recorders (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  room_id uuid NOT NULL UNIQUE REFERENCES rooms,
  name text NOT NULL UNIQUE,
  key_hash text NOT NULL UNIQUE,
  last_report_at timestamptz,
  report jsonb
);

CREATE TABLE captures (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  section_id uuid NOT NULL REFERENCES sections,
  room_id uuid NOT NULL REFERENCES rooms,
  presenter_id uuid NOT NULL REFERENCES people,
  topic text NOT NULL DEFAULT '',
  starts_at timestamptz NOT NULL,
  ends_at timestamptz NOT NULL,
  -- the room's own time: the capture and the turnaround after it
  held tstzrange NOT NULL,
  inputs text[] NOT NULL CHECK (cardinality(inputs) > 0),
  state text NOT NULL DEFAULT 'planned' CHECK (state IN
    ('planned', 'armed', 'recording', 'coming_in', 'being_made', 'filed', 'left_out', 'cancelled', 'missed', 'failed')),
  lecture_number integer,
  planned_by uuid REFERENCES people,
  revision integer NOT NULL DEFAULT 0,
  CHECK (ends_at > starts_at),
  CONSTRAINT one_capture_a_room EXCLUDE USING gist (room_id WITH =, held WITH &&)
    WHERE (state NOT IN ('left_out', 'cancelled'))
);
CREATE FUNCTION capture_held() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE room rooms;
BEGIN
  SELECT * INTO room FROM rooms WHERE id = NEW.room_id;
  NEW.held := tstzrange(NEW.starts_at, NEW.ends_at + make_interval(mins => room.turnaround_minutes));
  IF NOT NEW.inputs <@ room.inputs THEN
    RAISE EXCEPTION 'room % cannot take in %', room.name, NEW.inputs USING ERRCODE = 'check_violation';
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER capture_held BEFORE INSERT OR UPDATE OF room_id, starts_at, ends_at, inputs ON captures
  FOR EACH ROW EXECUTE FUNCTION capture_held();
CREATE INDEX captures_starts ON captures (starts_at);
CREATE INDEX captures_section ON captures (section_id, starts_at);
CREATE INDEX captures_presenter ON captures (presenter_id, starts_at);

CREATE TABLE recordings (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  capture_id uuid UNIQUE REFERENCES captures,
  owner_id uuid NOT NULL REFERENCES people,
  name text NOT NULL,
  state text NOT NULL CHECK (state IN ('recording', 'coming_in', 'being_made', 'ready', 'failed')),
  trouble text NOT NULL DEFAULT '',
  duration_s double precision,
  -- folder in the store that holds streams, poster and sound level; set when playable
  store_prefix text,
  has_camera boolean NOT NULL DEFAULT false,
  has_picture boolean NOT NULL DEFAULT true,
  level jsonb,
  created_at timestamptz NOT NULL
);
CREATE TABLE source_files (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  recording_id uuid NOT NULL REFERENCES recordings ON DELETE CASCADE,
  upload_id text NOT NULL UNIQUE,
  name text NOT NULL,
  bytes bigint NOT NULL,
  store_key text NOT NULL,
  probe jsonb,
  arrived_at timestamptz NOT NULL
);
CREATE TABLE filings (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  folder_id uuid NOT NULL REFERENCES folders,
  recording_id uuid NOT NULL REFERENCES recordings ON DELETE CASCADE,
  -- teaching order: the campus time of the lesson, in seconds
  position double precision NOT NULL,
  UNIQUE (folder_id, recording_id)
);
CREATE INDEX filings_recording ON filings (recording_id);
CREATE TABLE releases (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  filing_id uuid NOT NULL UNIQUE REFERENCES filings ON DELETE CASCADE,
  opens_at timestamptz,
  closes_at timestamptz,
  released_by uuid NOT NULL REFERENCES people,
  released_at timestamptz NOT NULL,
  CHECK (closes_at > opens_at)
);

CREATE TABLE placements (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  slug text NOT NULL UNIQUE,
  filing_id uuid NOT NULL REFERENCES filings ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind IN ('player', 'link')),
  placed_by uuid NOT NULL REFERENCES people,
  copied_at timestamptz NOT NULL,
  page_url text,
  met_at timestamptz,
  -- an unmet code is handed out again instead of a new one
  UNIQUE NULLS NOT DISTINCT (filing_id, kind, placed_by, met_at)
);
CREATE TABLE viewings (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  recording_id uuid NOT NULL REFERENCES recordings ON DELETE CASCADE,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  placement_id uuid REFERENCES placements ON DELETE SET NULL,
  position_s double precision NOT NULL DEFAULT 0,
  spans jsonb NOT NULL DEFAULT '[]',
  seen_at timestamptz NOT NULL,
  UNIQUE (recording_id, person_id)
);

CREATE TABLE sessions (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  token_hash text NOT NULL UNIQUE,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  id_token text,
  began_at timestamptz NOT NULL,
  expires_at timestamptz NOT NULL,
  ended_at timestamptz
);
CREATE TABLE tickets (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  token_hash text NOT NULL UNIQUE,
  session_id uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
  placement_id uuid NOT NULL REFERENCES placements ON DELETE CASCADE,
  expires_at timestamptz NOT NULL
);

CREATE TABLE undertakings (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  kind text NOT NULL CHECK (kind IN ('making')),
  recording_id uuid NOT NULL UNIQUE REFERENCES recordings ON DELETE CASCADE,
  state text NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'failed', 'cancelled')),
  step text NOT NULL DEFAULT '',
  percent double precision NOT NULL DEFAULT 0,
  left_s double precision,
  sentence text NOT NULL DEFAULT '',
  attempts integer NOT NULL DEFAULT 0,
  asked_at timestamptz NOT NULL,
  began_at timestamptz,
  ended_at timestamptz,
  size_s double precision
);
CREATE TABLE worker_presence (
  pool_id text PRIMARY KEY,
  lock_key bigint NOT NULL,
  worker_ids text[] NOT NULL DEFAULT '{}'
);
CREATE TABLE audit (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  at timestamptz NOT NULL,
  actor_id uuid REFERENCES people,
  action text NOT NULL,
  subject_id uuid NOT NULL,
  detail jsonb NOT NULL DEFAULT '{}'
);
CREATE INDEX audit_subject ON audit (subject_id, at);
`

export const down = 'DROP SCHEMA public CASCADE; CREATE SCHEMA public;'
