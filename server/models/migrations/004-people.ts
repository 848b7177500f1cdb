/** What people have of their own: calendar addresses, notices, requests, messages; and what sections settle by default. */
export const up = `
CREATE TABLE calendar_addresses (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  token_hash text NOT NULL UNIQUE,
  kind text NOT NULL CHECK (kind IN ('room', 'section', 'person')),
  subject_id uuid NOT NULL,
  owner_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  made_at timestamptz NOT NULL,
  read_at timestamptz,
  revoked_at timestamptz
);
CREATE INDEX calendar_addresses_owner ON calendar_addresses (owner_id);

-- One message for one action and person. Mail waits until due_at: undone before, it is never sent.
CREATE TABLE notices (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind IN ('planned', 'changed', 'cancelled', 'ready', 'request', 'message')),
  edit_id uuid REFERENCES timetable_edits ON DELETE SET NULL,
  subject text NOT NULL,
  body text NOT NULL,
  path text NOT NULL,
  told_at timestamptz NOT NULL,
  due_at timestamptz NOT NULL,
  -- whether this person wants it in the application and by mail, as it was when told
  in_app boolean NOT NULL,
  by_mail boolean NOT NULL,
  mailed_at timestamptz,
  attempts integer NOT NULL DEFAULT 0,
  trouble text NOT NULL DEFAULT '',
  read_at timestamptz
);
CREATE INDEX notices_person ON notices (person_id, told_at DESC);
CREATE INDEX notices_due ON notices (due_at) WHERE by_mail AND mailed_at IS NULL;
CREATE TABLE notice_choices (
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  kind text NOT NULL,
  in_app boolean NOT NULL,
  by_mail boolean NOT NULL,
  PRIMARY KEY (person_id, kind)
);

-- What an instructor asked for beyond the team's rules.
CREATE TABLE plan_requests (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  person_id uuid NOT NULL REFERENCES people,
  section_id uuid NOT NULL REFERENCES sections ON DELETE CASCADE,
  capture_id uuid REFERENCES captures ON DELETE CASCADE,
  wish jsonb NOT NULL,
  words text NOT NULL,
  reasons text[] NOT NULL,
  note text NOT NULL DEFAULT '',
  state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'accepted', 'turned down', 'taken back')),
  answer text NOT NULL DEFAULT '',
  answered_by uuid REFERENCES people,
  asked_at timestamptz NOT NULL,
  answered_at timestamptz
);
CREATE INDEX plan_requests_state ON plan_requests (state, asked_at);

CREATE TABLE section_defaults (
  section_id uuid PRIMARY KEY REFERENCES sections ON DELETE CASCADE,
  release text NOT NULL DEFAULT 'held' CHECK (release IN ('held', 'class list')),
  -- days after the lesson at which it opens and closes; null: at once, and never
  opens_days integer CHECK (opens_days >= 0),
  closes_days integer CHECK (closes_days > 0),
  captions boolean NOT NULL DEFAULT false,
  folder_pattern text NOT NULL DEFAULT '',
  told uuid[] NOT NULL DEFAULT '{}',
  CHECK (closes_days IS NULL OR opens_days IS NULL OR closes_days > opens_days)
);

-- A practice section belongs to one instructor; it has no class list and goes away by itself.
ALTER TABLE sections ADD practice_of uuid UNIQUE REFERENCES people ON DELETE CASCADE;

CREATE TABLE help_messages (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  path text NOT NULL,
  body text NOT NULL,
  written_at timestamptz NOT NULL,
  answer text,
  answered_by uuid REFERENCES people,
  answered_at timestamptz
);
CREATE INDEX help_messages_open ON help_messages (answered_at, written_at);
`

export const down = `DROP TABLE help_messages, section_defaults, plan_requests, notice_choices, notices, calendar_addresses; ALTER TABLE sections DROP practice_of;`
