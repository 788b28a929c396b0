-- When the college teaches: calendars of a term, the one of the whole term and those of parts.
create table calendar (
  id uuid primary key,
  term_id uuid not null references term on delete cascade,
  name text not null check (name <> ''),
  first_day date not null,
  last_day date not null check (last_day >= first_day),
  finals_first date,
  finals_last date check (finals_last >= finals_first),
  zone text not null,
  weeks text not null,
  weekdays integer[] not null, -- from Monday, 1, to Sunday, 7
  whole boolean not null,
  fit text not null,
  check ((finals_first is null) = (finals_last is null)),
  unique (term_id, name)
);
create unique index on calendar (term_id) where whole;

create table day_off (
  calendar_id uuid not null references calendar on delete cascade,
  name text not null check (name <> ''),
  first_day date not null,
  last_day date not null check (last_day >= first_day),
  primary key (calendar_id, first_day, name)
);

-- Sections of a part of their term; all others go by the calendar of the whole.
create table section_calendar (
  section_id uuid primary key references section on delete cascade,
  calendar_id uuid not null references calendar on delete cascade
);
create index on section_calendar (calendar_id);

create table section_meeting (
  section_id uuid not null references section on delete cascade,
  weekday integer not null check (weekday between 1 and 7),
  begins time not null,
  ends time not null check (ends > begins),
  primary key (section_id, weekday, begins)
);

create table meeting_cancelled (
  section_id uuid not null references section on delete cascade,
  day date not null,
  primary key (section_id, day)
);

-- What becomes of dates on days off, for a master; without a row: the next teaching day.
create table master_off (
  master_id uuid primary key references master on delete cascade,
  rule text not null,
  by_kind jsonb not null default '{}'
);

-- Dates that chosen sections have of their own, whatever the pattern says.
create table section_date (
  section_id uuid not null references section on delete cascade,
  master_id uuid not null references master on delete cascade,
  item_key text not null,
  point text not null,
  at timestamp, -- none: it has no such date there
  set_by uuid references person,
  set_at timestamptz not null,
  primary key (section_id, master_id, item_key, point)
);
