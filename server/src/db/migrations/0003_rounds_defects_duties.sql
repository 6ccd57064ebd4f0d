-- Up Migration
-- Rounds at three times, the whole life of a defect, who is authorised, what falls due. SQLSTATEs as in the base, and
-- GL005 not authorised for this machine.
set search_path to geolabe;

-- Rounds: the walk-round before a shift, after an absence, at the end. The first of a shift carries the shift's own id. -----

create table inspection (
  org text not null,
  id uuid not null,
  shift uuid not null,
  machine text not null,
  occasion text not null check (occasion in ('pre-use', 'after-absence', 'end-of-shift')),
  by text not null,
  opened_at timestamptz not null default now(),
  finished_at timestamptz,
  -- What waited for overhead, people and legs.
  raised_at timestamptz,
  hands_on_at timestamptz,
  items integer,
  defects integer,
  duration_s double precision,
  primary key (org, id),
  foreign key (org, shift) references shift,
  foreign key (org, machine) references machine,
  foreign key (org, by) references person
);
create index inspection_by_shift on inspection (org, shift, opened_at);
create index inspection_by_time on inspection (org, opened_at desc, id);
create index inspection_by_machine on inspection (org, machine, opened_at desc);
insert into inspection (org, id, shift, machine, occasion, by, opened_at, finished_at)
  select org, id, id, machine, 'pre-use', operator, opened_at, walk_finished_at from shift where imported is null;

alter table inspection_entry add column inspection uuid, add column machine text, add column device text not null default '', add column because text;
update inspection_entry w set inspection = w.shift, machine = s.machine from shift s where s.org = w.org and s.id = w.shift;
alter table inspection_entry
  alter column inspection set not null,
  alter column machine set not null,
  add check (because in ('measured-again', 'replaced')),
  drop constraint inspection_entry_pkey,
  add primary key (org, inspection, item),
  add foreign key (org, inspection) references inspection;
create index inspection_entry_by_shift on inspection_entry (org, shift);
create index inspection_entry_readings on inspection_entry (org, machine, item, at desc) where reading is not null;
alter table shift drop column walk_finished_at;

create table override_use (
  org text not null,
  id uuid not null,
  shift uuid not null,
  machine text not null,
  override text not null,
  label text not null,
  reason text not null,
  seconds double precision not null check (seconds > 0),
  after text not null,
  by text not null,
  at timestamptz not null default now(),
  followed_by text,
  followed_at timestamptz,
  primary key (org, id),
  foreign key (org, shift) references shift,
  foreign key (org, machine) references machine,
  foreign key (org, by) references person
);
create index override_by_machine on override_use (org, machine, at desc);

-- What the rating plate says, entered once; a later entry is a new plate. ---------------------------------------------------

create table plate_value (
  org text not null,
  machine text not null,
  field text not null,
  value text not null,
  by text,
  at timestamptz not null default clock_timestamp(),
  primary key (org, machine, field, at),
  foreign key (org, machine) references machine
);

-- A walk-round written or brought in by people; the machine's own counts until there is one. -------------------------------

create table walkround_revision (
  org text not null,
  machine text not null,
  revision integer not null,
  document jsonb not null,
  why text not null,
  entered_by text,
  entered_at timestamptz not null default now(),
  primary key (org, machine, revision),
  foreign key (org, machine) references machine
);
create function walkround_guard() returns trigger language plpgsql as $$
begin
  if geolabe.current_person() is not null and not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
    raise exception 'a walk-round is changed by the person in charge or an administrator' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger walkround_guard before insert on walkround_revision for each row execute function walkround_guard();

-- Who may: authorisations are the electronic key. ---------------------------------------------------------------------------

create table authorisation (
  org text not null,
  person text not null,
  machine text not null,
  given_by text,
  given_at timestamptz not null default now(),
  withdrawn_by text,
  withdrawn_at timestamptz,
  primary key (org, person, machine, given_at),
  foreign key (org, person) references person,
  foreign key (org, machine) references machine
);
create unique index authorisation_now on authorisation (org, person, machine) where withdrawn_at is null;
-- Who has driven a machine so far keeps its key.
insert into authorisation (org, person, machine) select distinct org, operator, machine from shift where imported is null;

create function authorisation_guard() returns trigger language plpgsql as $$
begin
  if geolabe.current_person() is null then
    return new;
  end if;
  if not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
    raise exception 'authorisations are given by the person in charge or an administrator' using errcode = 'GL003';
  end if;
  if tg_op = 'INSERT' and new.person = geolabe.current_person() then
    raise exception 'nobody authorises themselves' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger authorisation_guard before insert or update on authorisation for each row execute function authorisation_guard();
create trigger authorisation_told after insert or update on authorisation for each row execute function tell('people');

create or replace function shift_guard() returns trigger language plpgsql as $$
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
  if not exists (select from geolabe.authorisation where org = new.org and person = new.operator and machine = new.machine and withdrawn_at is null) then
    raise exception 'not authorised for this machine' using errcode = 'GL005';
  end if;
  return new;
end $$;

-- Defects: from raised to returned, watched or accepted; none disappears. ------------------------------------------------------

create table defect_contact (
  org text not null references organisation,
  person text not null,
  stand_in text not null,
  primary key (org, person),
  foreign key (org, person) references person,
  foreign key (org, stand_in) references person,
  check (person <> stand_in)
);

drop trigger defect_guard on defect;
alter table defect
  drop constraint defect_state_check,
  drop constraint returned_after_repair,
  add column raised_grade text,
  -- Stops the machine until the person in charge has graded it.
  add column pending boolean not null default false,
  add column spot jsonb,
  add column verified_by text,
  add column verified_at timestamptz,
  add column verify_words text,
  add column watched_by text,
  add column watched_at timestamptz,
  add column watch_until date,
  add column watch_hours double precision,
  add column watch_words text,
  add column accepted_by text,
  add column accepted_at timestamptz,
  add column accept_words text,
  add column worsened_at timestamptz;
update defect set raised_grade = grade;
-- What was returned under the earlier rules: after a repair it had been looked at by who returned it; without one it was accepted.
update defect set verified_by = returned_by, verified_at = returned_at, verify_words = return_words where state = 'returned' and repaired_by is not null;
update defect set state = 'accepted', accepted_by = returned_by, accepted_at = returned_at, accept_words = return_words,
  returned_by = null, returned_at = null, return_words = null where state = 'returned' and repaired_by is null;
alter table defect
  alter column raised_grade set not null,
  add check (state in ('raised', 'acknowledged', 'repaired', 'verified', 'watched', 'accepted', 'returned')),
  add constraint verified_by_another check (verified_by is null or verified_by is distinct from repaired_by),
  add constraint returned_after_check check (state <> 'returned' or (repaired_by is not null and verified_by is not null)),
  -- Nothing that stops a machine for danger or harm is watched or accepted away.
  add constraint only_watch_is_kept check (state not in ('watched', 'accepted') or (grade = 'watch' and not pending)),
  add foreign key (org, verified_by) references person,
  add foreign key (org, watched_by) references person,
  add foreign key (org, accepted_by) references person;
drop index defect_open;
create index defect_open on defect (org, machine) where state not in ('returned', 'accepted');
create index defect_open_by_time on defect (org, raised_at desc, id) where state not in ('returned', 'accepted');
create index defect_by_machine on defect (org, machine, raised_at desc);

create table defect_note (
  org text not null,
  id uuid not null,
  defect uuid not null,
  kind text not null check (kind in ('note', 'worsened', 'graded')),
  words text not null,
  by text not null,
  at timestamptz not null default now(),
  primary key (org, id),
  foreign key (org, defect) references defect,
  foreign key (org, by) references person
);
create index defect_note_by_defect on defect_note (org, defect, at);

create or replace function machine_stopped(o text, m text) returns boolean language sql stable as $$
  select exists (select from geolabe.defect where org = o and machine = m and (grade in ('hazard', 'damage') or pending)
    and state not in ('returned', 'accepted'))
$$;

create function gravity(g text) returns integer language sql immutable as
$$ select case g when 'hazard' then 2 when 'damage' then 1 else 0 end $$;

create or replace function defect_guard() returns trigger language plpgsql as $$
begin
  perform from geolabe.machine where org = new.org and id = new.machine for update;
  if tg_op = 'INSERT' then
    new.raised_grade := new.grade;
    if geolabe.current_person() is not null then
      new.pending := new.grade = 'watch' and exists (select from geolabe.machine where org = new.org and id = new.machine
        and document->>'defectPolicy' = 'stops-until-graded');
    end if;
    return new;
  end if;
  if new.words <> old.words or new.machine <> old.machine or new.raised_by <> old.raised_by or new.raised_grade <> old.raised_grade then
    raise exception 'what was raised is not rewritten' using errcode = 'GL004';
  end if;
  if geolabe.gravity(new.grade) < geolabe.gravity(old.grade) then
    raise exception 'a defect is never graded milder' using errcode = 'GL004';
  end if;
  if new.grade <> old.grade and old.state in ('returned', 'accepted') then
    raise exception 'this defect has ended; raise a new one' using errcode = 'GL004';
  end if;
  if new.pending <> old.pending then
    if new.pending or not geolabe.has_role('person-in-charge') then
      raise exception 'the person in charge grades it' using errcode = 'GL003';
    end if;
  end if;
  if new.state = old.state then
    return new;
  end if;
  if new.state = 'acknowledged' and old.state = 'raised' then
    if not (geolabe.has_role('person-in-charge') or exists (select from geolabe.defect_contact
      where org = new.org and geolabe.current_person() in (person, stand_in))) then
      raise exception 'the named contact, the stand-in or the person in charge acknowledges' using errcode = 'GL003';
    end if;
  elsif new.state = 'repaired' and old.state in ('raised', 'acknowledged', 'watched') then
    if not geolabe.has_role('fitter') then
      raise exception 'a fitter records the repair' using errcode = 'GL003';
    end if;
  elsif new.state = 'verified' and old.state = 'repaired' then
    if new.verified_by is distinct from geolabe.current_person() or new.repaired_by = geolabe.current_person() then
      raise exception 'another than who repaired it looks at it' using errcode = 'GL003';
    end if;
  elsif new.state = 'acknowledged' and old.state in ('verified', 'repaired', 'watched') then
    -- Looked at and not in order, or worsened: back to where a repair is owed.
    null;
  elsif new.state in ('returned', 'watched', 'accepted') and
    ((new.state = 'returned' and old.state = 'verified') or (new.state <> 'returned' and old.state in ('acknowledged', 'watched'))) then
    if not geolabe.has_role('person-in-charge') then
      raise exception 'the person in charge decides this' using errcode = 'GL003';
    end if;
  else
    raise exception 'a defect that is % cannot become %', old.state, new.state using errcode = 'GL004';
  end if;
  return new;
end $$;
create trigger defect_guard before insert or update on defect for each row execute function defect_guard();

create function never_deleted() returns trigger language plpgsql as $$
begin
  raise exception 'no defect disappears' using errcode = 'GL004';
end $$;
create trigger defect_never_deleted before delete on defect for each row execute function never_deleted();

-- What falls due. -----------------------------------------------------------------------------------------------------------

create table duty_done (
  org text not null,
  id uuid not null,
  machine text not null,
  duty text not null,
  done_on date not null,
  hours double precision,
  by text,
  words text not null default '',
  at timestamptz not null default now(),
  primary key (org, id),
  foreign key (org, machine) references machine,
  foreign key (org, by) references person
);
create index duty_done_last on duty_done (org, machine, duty, done_on desc);
create index duty_done_by_machine on duty_done (org, machine, done_on desc);

-- Searching the journal. --------------------------------------------------------------------------------------------------------

create index journal_by_kind on journal (org, kind, seq desc);
create index journal_by_actor on journal (org, actor, seq desc);
create index journal_by_subject on journal (org, subject, seq desc);
create index journal_by_machine on journal (org, (body->>'machine'), seq desc);
create index journal_words on journal using gin (to_tsvector('simple', body));


-- Row-level security keeps the planner from asking a text index first, since its operator could leak what it sees. This asks it
-- for one organisation only, and gives back nothing but numbers. Planned anew for its words: a rare one goes by the index, a
-- frequent one from the newest entry back.
create function journal_with_words(words text, before bigint, most integer) returns setof bigint
language plpgsql stable security definer set search_path = geolabe, pg_temp as $$
begin
  return query execute format(
    'select seq from journal where org = %L and to_tsvector(''simple'', body) @@ plainto_tsquery(''simple'', %L) and seq < %s order by seq desc limit %s',
    current_org(), words, coalesce(before, 9223372036854775807), coalesce(most::text, 'all'));
end $$;

create trigger inspection_told after insert or update on inspection for each row execute function tell('shifts');
create trigger override_told after insert or update on override_use for each row execute function tell('shifts');
create trigger note_told after insert on defect_note for each row execute function tell('defects');
create trigger duty_told after insert on duty_done for each row execute function tell('due');
create trigger walkround_told after insert on walkround_revision for each row execute function tell('machines');

do $$
declare
  t text;
begin
  foreach t in array array['inspection', 'override_use', 'plate_value', 'walkround_revision', 'authorisation', 'defect_contact', 'defect_note', 'duty_done']
  loop
    execute format('alter table geolabe.%I enable row level security', t);
    execute format('alter table geolabe.%I force row level security', t);
    execute format('create policy own on geolabe.%I using (org = geolabe.current_org()) with check (org = geolabe.current_org())', t);
    execute format('grant select, insert on geolabe.%I to geolabe_app', t);
  end loop;
end $$;
revoke insert on defect_contact from geolabe_app;
grant update (finished_at, raised_at, hands_on_at, items, defects, duration_s) on inspection to geolabe_app;
grant update (device, because) on inspection_entry to geolabe_app;
grant update (followed_by, followed_at) on override_use to geolabe_app;
grant update (withdrawn_by, withdrawn_at) on authorisation to geolabe_app;
grant update (grade, pending, verified_by, verified_at, verify_words, watched_by, watched_at, watch_until, watch_hours, watch_words,
  accepted_by, accepted_at, accept_words, worsened_at) on defect to geolabe_app;
revoke execute on all functions in schema geolabe from public;
grant execute on all functions in schema geolabe to geolabe_app;

-- Down Migration
set search_path to geolabe;
do $$ begin raise exception 'defects that were verified, watched or accepted have no place in the earlier schema'; end $$;
