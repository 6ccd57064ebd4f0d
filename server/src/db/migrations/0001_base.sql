-- Up Migration
-- Every row belongs to an organisation; keys begin with it. The application's role sees only the organisation named in
-- app.org (row-level security, forced), whatever a query forgets. SQLSTATEs of our own: GL001 machine is stopped,
-- GL002 machine is taken, GL003 not this person's part, GL004 not in this state.

create schema geolabe;
set search_path to geolabe;

create table organisation (
  org text primary key,
  name text not null
);

create table person (
  org text not null references organisation,
  id text not null,
  name text not null,
  badge text not null,
  roles text[] not null,
  pin_hash text not null,
  licences jsonb not null,
  trained text[] not null,
  primary key (org, id),
  unique (org, badge)
);

create table session (
  token_hash text primary key,
  org text not null,
  person text not null,
  expires_at timestamptz not null,
  foreign key (org, person) references person
);

create table machine (
  org text not null references organisation,
  id text not null,
  revision integer not null,
  document jsonb not null,
  primary key (org, id)
);

create table rating_table (
  org text not null,
  id text not null,
  revision integer not null,
  machine text not null,
  document jsonb not null,
  primary key (org, id, revision),
  foreign key (org, machine) references machine
);

create table place (
  org text not null references organisation,
  id text not null,
  document jsonb not null,
  primary key (org, id)
);

create table shift (
  org text not null,
  id uuid not null,
  machine text not null,
  machine_revision integer not null,
  place text not null,
  operator text not null,
  opened_at timestamptz not null default now(),
  closed_at timestamptz,
  sign_on jsonb not null,
  site jsonb,
  walk_finished_at timestamptz,
  handover jsonb,
  -- Whole, for a shift that came in as a file.
  imported jsonb,
  primary key (org, id),
  foreign key (org, machine) references machine,
  foreign key (org, place) references place,
  foreign key (org, operator) references person
);
-- One open shift a machine: of two people taking it at once one gets it.
create unique index shift_one_open on shift (org, machine) where closed_at is null;
create index shift_by_time on shift (org, opened_at desc, id);
create index shift_by_machine on shift (org, machine, opened_at desc);

create table inspection_entry (
  org text not null,
  shift uuid not null,
  item text not null,
  result text not null check (result in ('in-order', 'defect', 'not-fitted')),
  reading double precision,
  at timestamptz not null,
  primary key (org, shift, item),
  foreign key (org, shift) references shift
);

create table setup (
  org text not null,
  id uuid not null,
  shift uuid not null,
  at timestamptz not null default now(),
  plan jsonb not null,
  primary key (org, id),
  foreign key (org, shift) references shift
);
create index setup_by_shift on setup (org, shift, at);

create table lift (
  org text not null,
  id uuid not null,
  shift uuid not null,
  setup uuid not null,
  at timestamptz not null default now(),
  plan jsonb not null,
  conditions jsonb not null,
  policy jsonb not null,
  assessment jsonb not null,
  versions jsonb not null,
  outcome jsonb,
  primary key (org, id),
  foreign key (org, shift) references shift,
  foreign key (org, setup) references setup
);
create index lift_by_shift on lift (org, shift, at);

create table defect (
  org text not null,
  id uuid not null,
  machine text not null,
  shift uuid,
  item text,
  place_on_machine text not null,
  words text not null,
  grade text not null check (grade in ('hazard', 'damage', 'watch')),
  state text not null default 'raised' check (state in ('raised', 'acknowledged', 'repaired', 'returned')),
  raised_by text not null,
  raised_at timestamptz not null default now(),
  acknowledged_by text,
  acknowledged_at timestamptz,
  repaired_by text,
  repaired_at timestamptz,
  repair jsonb,
  returned_by text,
  returned_at timestamptz,
  return_words text,
  primary key (org, id),
  foreign key (org, machine) references machine,
  foreign key (org, shift) references shift,
  foreign key (org, raised_by) references person,
  -- Nobody puts back in service what they alone repaired.
  constraint returned_by_another check (returned_by is null or returned_by is distinct from repaired_by),
  -- What stops a machine goes back only after a recorded repair.
  constraint returned_after_repair check (state <> 'returned' or grade = 'watch' or repaired_by is not null)
);
create index defect_open on defect (org, machine) where state <> 'returned';
create index defect_by_time on defect (org, raised_at desc, id);

create table photo (
  org text not null,
  id uuid not null,
  defect uuid not null,
  mime text not null,
  bytes bytea not null,
  primary key (org, id),
  foreign key (org, defect) references defect
);
create index photo_by_defect on photo (org, defect);

-- What was answered to a write, so that the same write sent again is answered and not done again.
create table applied (
  org text not null,
  id uuid not null,
  request text not null,
  status integer,
  answer jsonb,
  at timestamptz not null default now(),
  primary key (org, id)
);

create table journal (
  org text not null,
  seq bigint not null,
  at timestamptz not null,
  actor text,
  kind text not null,
  subject text not null,
  body jsonb not null,
  prev_hash text not null,
  hash text not null,
  primary key (org, seq)
);

create table throttle (
  key varchar(255) primary key,
  points integer not null default 0,
  expire bigint
);

-- Who is asking -------------------------------------------------------------------------------------------------------

create function current_org() returns text language sql stable as $$ select nullif(current_setting('app.org', true), '') $$;
create function current_person() returns text language sql stable as $$ select nullif(current_setting('app.person', true), '') $$;
create function has_role(wanted text) returns boolean language sql stable as
$$ select exists (select from geolabe.person where org = geolabe.current_org() and id = geolabe.current_person() and wanted = any(roles)) $$;

-- Journal: only added to, each entry carrying the hash of the one before ------------------------------------------------

create function journal_text(e journal) returns text language sql immutable as $$
  select concat_ws(E'\n', e.prev_hash, e.seq::text, to_char(e.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"'),
    coalesce(e.actor, '-'), e.kind, e.subject, e.body::text)
$$;

create function journal_append(kind text, subject text, body jsonb) returns bigint
language plpgsql security definer set search_path = geolabe, pg_temp as $$
declare
  e journal;
  last journal;
begin
  if current_org() is null then
    raise exception 'no organisation set';
  end if;
  perform pg_advisory_xact_lock(hashtextextended('journal:' || current_org(), 0));
  select * into last from journal where org = current_org() order by seq desc limit 1;
  e.org := current_org();
  e.seq := coalesce(last.seq, 0) + 1;
  e.at := clock_timestamp();
  e.actor := current_person();
  e.kind := kind;
  e.subject := subject;
  e.body := body;
  e.prev_hash := coalesce(last.hash, 'begin');
  e.hash := encode(sha256(convert_to(journal_text(e), 'UTF8')), 'hex');
  insert into journal values (e.*);
  return e.seq;
end $$;

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'the journal is only ever added to' using errcode = 'GL004';
end $$;
create trigger journal_append_only before update or delete on journal for each row execute function refuse_change();
create trigger journal_never_emptied before truncate on journal for each statement execute function refuse_change();

-- Stopping --------------------------------------------------------------------------------------------------------------

create function machine_stopped(o text, m text) returns boolean language sql stable as $$
  select exists (select from geolabe.defect where org = o and machine = m and grade in ('hazard', 'damage') and state <> 'returned')
$$;

create function shift_guard() returns trigger language plpgsql as $$
begin
  if new.imported is not null then
    return new;
  end if;
  -- The machine's row is locked by whoever stops it and by whoever takes it: one goes first.
  perform from geolabe.machine where org = new.org and id = new.machine for update;
  if geolabe.machine_stopped(new.org, new.machine) then
    raise exception 'machine is stopped' using errcode = 'GL001';
  end if;
  if exists (select from geolabe.shift where org = new.org and machine = new.machine and closed_at is null) then
    raise exception 'machine is taken' using errcode = 'GL002';
  end if;
  return new;
end $$;
create trigger shift_guard before insert on shift for each row execute function shift_guard();

create function lift_guard() returns trigger language plpgsql as $$
declare
  m text;
begin
  select machine into m from geolabe.shift where org = new.org and id = new.shift;
  if geolabe.machine_stopped(new.org, m) then
    raise exception 'machine is stopped' using errcode = 'GL001';
  end if;
  return new;
end $$;
create trigger lift_guard before insert on lift for each row execute function lift_guard();

create function defect_guard() returns trigger language plpgsql as $$
begin
  perform from geolabe.machine where org = new.org and id = new.machine for update;
  if tg_op = 'INSERT' then
    return new;
  end if;
  if new.grade <> old.grade or new.words <> old.words or new.machine <> old.machine or new.raised_by <> old.raised_by then
    raise exception 'what was raised is not rewritten' using errcode = 'GL004';
  end if;
  if new.state = old.state then
    return new;
  end if;
  if new.state = 'acknowledged' and old.state = 'raised' then
    if not geolabe.has_role('person-in-charge') then
      raise exception 'the person in charge acknowledges' using errcode = 'GL003';
    end if;
  elsif new.state = 'repaired' and old.state in ('raised', 'acknowledged') then
    if not geolabe.has_role('fitter') then
      raise exception 'a fitter records the repair' using errcode = 'GL003';
    end if;
  elsif new.state = 'returned' and (old.state = 'repaired' or (old.state = 'acknowledged' and old.grade = 'watch')) then
    if not geolabe.has_role('person-in-charge') then
      raise exception 'the person in charge returns to service' using errcode = 'GL003';
    end if;
  else
    raise exception 'a defect that is % cannot become %', old.state, new.state using errcode = 'GL004';
  end if;
  return new;
end $$;
create trigger defect_guard before insert or update on defect for each row execute function defect_guard();

-- Told to every open screen, through whichever server process it hangs on.
create function tell() returns trigger language plpgsql as $$
begin
  perform pg_notify('geolabe', json_build_object('org', new.org, 'about', tg_argv[0])::text);
  return new;
end $$;
create trigger shift_told after insert or update on shift for each row execute function tell('shifts');
create trigger defect_told after insert or update on defect for each row execute function tell('defects');
create trigger lift_told after insert or update on lift for each row execute function tell('shifts');

-- Sign-in: the only way past row-level security, and only this far -------------------------------------------------------

create function sign_in_lookup(o text, b text) returns table (person text, pin_hash text)
language sql stable security definer set search_path = geolabe, pg_temp as
$$ select id, pin_hash from person where org = o and badge = b $$;

create function session_begin(h text, o text, p text, until timestamptz) returns void
language sql security definer set search_path = geolabe, pg_temp as
$$ delete from session where expires_at < now(); insert into session values (h, o, p, until) $$;

create function session_find(h text) returns table (org text, person text)
language sql stable security definer set search_path = geolabe, pg_temp as
$$ select org, person from session where token_hash = h and expires_at > now() $$;

create function session_end(h text) returns void
language sql security definer set search_path = geolabe, pg_temp as
$$ delete from session where token_hash = h $$;

-- Row-level security ------------------------------------------------------------------------------------------------------

do $$
declare
  t text;
begin
  foreach t in array array['organisation', 'person', 'machine', 'rating_table', 'place', 'shift', 'inspection_entry', 'setup', 'lift', 'defect', 'photo', 'applied', 'journal']
  loop
    execute format('alter table geolabe.%I enable row level security', t);
    execute format('alter table geolabe.%I force row level security', t);
    execute format('create policy own on geolabe.%I using (org = geolabe.current_org()) with check (org = geolabe.current_org())', t);
  end loop;
end $$;

grant usage on schema geolabe to geolabe_app;
grant select on organisation, machine, rating_table, place, shift, inspection_entry, setup, lift, defect, photo, applied, journal to geolabe_app;
grant select (org, id, name, badge, roles, licences, trained) on person to geolabe_app;
grant insert on shift, inspection_entry, setup, lift, defect, photo, applied to geolabe_app;
grant update (closed_at, site, walk_finished_at, handover) on shift to geolabe_app;
grant update (result, reading, at) on inspection_entry to geolabe_app;
grant update (outcome) on lift to geolabe_app;
grant update (state, acknowledged_by, acknowledged_at, repaired_by, repaired_at, repair, returned_by, returned_at, return_words) on defect to geolabe_app;
grant update (status, answer) on applied to geolabe_app;
-- For the row locks that order stopping and taking.
grant update (revision) on machine to geolabe_app;
grant select, insert, update, delete on throttle to geolabe_app;
revoke execute on all functions in schema geolabe from public;
grant execute on all functions in schema geolabe to geolabe_app;

-- Down Migration
drop schema geolabe cascade;
