-- Up Migration
-- Decisions about a defect as one state machine, written once; records that stay as they were made; a journal chained by machine; the
-- revisions that a record rests on; files from elsewhere apart from our own. The application's role may do what the routes may, no
-- more: nothing is skipped where no person is set. SQLSTATEs besides those of the base: GL006 one's own repair, GL007 stops the
-- machine or is not graded yet, GL008 milder than before.
set search_path to geolabe;

-- Asked by the application, rather than by who owns the records and lays them out.
create function is_app() returns boolean language sql stable as $$ select current_user in ('geolabe_app', 'geolabe_door') $$;

create function require_person() returns void language plpgsql stable as $$
begin
  if not exists (select from geolabe.person where org = geolabe.current_org() and id = geolabe.current_person()) then
    raise exception 'nobody is signed on' using errcode = 'GL003';
  end if;
end $$;

-- Defects ------------------------------------------------------------------------------------------------------------------

-- The same list as core/src/defect/moves.ts; a test holds them together.
create table defect_rule (
  action text not null,
  from_state text not null,
  to_state text not null,
  part text not null check (part in ('contact', 'fitter', 'inspector', 'person-in-charge', 'anyone')),
  only_watch boolean not null default false,
  primary key (action, from_state)
);
insert into defect_rule (action, from_state, to_state, part, only_watch) values
  ('acknowledge', 'raised', 'acknowledged', 'contact', false),
  ('grade', 'raised', 'raised', 'person-in-charge', false),
  ('grade', 'acknowledged', 'acknowledged', 'person-in-charge', false),
  ('grade', 'watched', 'acknowledged', 'person-in-charge', false),
  ('repair', 'raised', 'repaired', 'fitter', false),
  ('repair', 'acknowledged', 'repaired', 'fitter', false),
  ('repair', 'watched', 'repaired', 'fitter', false),
  ('verify', 'repaired', 'verified', 'inspector', false),
  ('send-back', 'repaired', 'acknowledged', 'inspector', false),
  ('send-back', 'verified', 'acknowledged', 'inspector', false),
  ('watch', 'acknowledged', 'watched', 'person-in-charge', true),
  ('watch', 'watched', 'watched', 'person-in-charge', true),
  ('accept', 'acknowledged', 'accepted', 'person-in-charge', true),
  ('accept', 'watched', 'accepted', 'person-in-charge', true),
  ('return', 'verified', 'returned', 'person-in-charge', false),
  ('worsen', 'raised', 'raised', 'anyone', false),
  ('worsen', 'acknowledged', 'acknowledged', 'anyone', false),
  ('worsen', 'watched', 'acknowledged', 'anyone', false);

create table defect_step (
  org text not null,
  defect uuid not null,
  n integer not null,
  action text not null,
  from_state text not null,
  to_state text not null,
  grade text not null,
  by text not null,
  at timestamptz not null,
  words text not null default '',
  detail jsonb not null default '{}',
  primary key (org, defect, n),
  foreign key (org, defect) references defect,
  foreign key (org, by) references person
);
create trigger defect_step_kept before update or delete on defect_step for each row execute function refuse_change();

-- What was decided before this list was kept.
insert into defect_step (org, defect, n, action, from_state, to_state, grade, by, at, words, detail)
  select org, id, row_number() over (partition by org, id order by at, rank), action, '', '', grade, by, at, coalesce(words, ''), coalesce(detail, '{}')
  from (
    select org, id, grade, 1 as rank, 'acknowledge' as action, acknowledged_by as by, acknowledged_at as at, null as words, null::jsonb as detail from defect
    union all select org, id, grade, 2, 'watch', watched_by, watched_at, watch_words, jsonb_build_object('until_date', watch_until, 'until_hours', watch_hours) from defect
    union all select org, id, grade, 3, 'repair', repaired_by, repaired_at, repair->>'words', repair from defect
    union all select org, id, grade, 4, 'verify', verified_by, verified_at, verify_words, null from defect
    union all select org, id, grade, 5, 'return', returned_by, returned_at, return_words, null from defect
    union all select org, id, grade, 6, 'accept', accepted_by, accepted_at, accept_words, null from defect
  ) s where by is not null and at is not null;

create or replace function defect_guard() returns trigger language plpgsql as $$
begin
  perform from geolabe.machine where org = new.org and id = new.machine for update;
  if tg_op = 'INSERT' then
    if geolabe.is_app() then
      perform geolabe.require_person();
      if new.raised_by is distinct from geolabe.current_person() then
        raise exception 'a defect is raised in one’s own name' using errcode = 'GL003';
      end if;
      new.raised_at := now();
      new.state := 'raised';
      new.acknowledged_by := null; new.acknowledged_at := null; new.repaired_by := null; new.repaired_at := null; new.repair := null;
      new.verified_by := null; new.verified_at := null; new.verify_words := null; new.returned_by := null; new.returned_at := null;
      new.return_words := null; new.watched_by := null; new.watched_at := null; new.watch_until := null; new.watch_hours := null;
      new.watch_words := null; new.accepted_by := null; new.accepted_at := null; new.accept_words := null; new.worsened_at := null;
    end if;
    new.raised_grade := new.grade;
    if geolabe.is_app() then
      new.pending := new.grade = 'watch' and exists (select from geolabe.machine where org = new.org and id = new.machine
        and document->>'defectPolicy' = 'stops-until-graded');
    end if;
    return new;
  end if;
  if coalesce(current_setting('app.defect_move', true), '') <> new.id::text then
    raise exception 'a decision about a defect is made by its own step' using errcode = 'GL004';
  end if;
  return new;
end $$;

-- The one way in which a defect changes. The part comes before the state: who may not, is not told how it stands.
create function defect_move(d uuid, act text, said text, detail jsonb) returns void
language plpgsql security definer set search_path = geolabe, pg_temp as $$
#variable_conflict use_variable
declare
  o text := current_org();
  me text := current_person();
  cur defect;
  rule defect_rule;
  allowed boolean;
  to_grade text;
  -- Laying out a past, its owner says when it was.
  at timestamptz := case when session_user in ('geolabe_app', 'geolabe_door') then clock_timestamp()
    else coalesce(nullif(current_setting('app.moment', true), '')::timestamptz, clock_timestamp()) end;
begin
  perform require_person();
  select * into cur from defect where org = o and id = d;
  if not found then
    raise exception 'no such defect' using errcode = 'GL004';
  end if;
  -- The machine's row is locked by whoever stops it and by whoever takes it: one goes first.
  perform from machine where org = o and id = cur.machine for update;
  select * into cur from defect where org = o and id = d for update;
  select * into rule from defect_rule where action = act limit 1;
  if not found then
    raise exception 'no such step' using errcode = 'GL004';
  end if;
  allowed := case rule.part
    when 'anyone' then true
    when 'contact' then has_role('person-in-charge') or exists (select from defect_contact where org = o and me in (person, stand_in))
    when 'inspector' then has_role('fitter') or has_role('person-in-charge')
    else has_role(rule.part) end;
  if not allowed then
    raise exception 'this step is the part of %', rule.part using errcode = 'GL003';
  end if;
  select * into rule from defect_rule where action = act and from_state = cur.state;
  if not found then
    raise exception 'a defect that is % takes no step %', cur.state, act using errcode = 'GL004';
  end if;
  if act in ('verify', 'return') and cur.repaired_by = me then
    raise exception 'one’s own repair' using errcode = 'GL006';
  end if;
  if rule.only_watch and (cur.grade <> 'watch' or cur.pending) then
    raise exception 'what stops a machine is repaired' using errcode = 'GL007';
  end if;
  to_grade := cur.grade;
  if act in ('grade', 'worsen') and detail->>'grade' is not null then
    to_grade := detail->>'grade';
  end if;
  if to_grade not in ('hazard', 'damage', 'watch') or gravity(to_grade) < gravity(cur.grade) then
    raise exception 'a defect is never graded milder' using errcode = 'GL008';
  end if;
  if act = 'grade' and not cur.pending and to_grade = cur.grade then
    raise exception 'it is graded so already' using errcode = 'GL004';
  end if;
  perform set_config('app.defect_move', d::text, true);
  update defect set state = rule.to_state, grade = to_grade, pending = pending and act <> 'grade' where org = o and id = d;
  case act
    when 'acknowledge' then
      update defect set acknowledged_by = me, acknowledged_at = at where org = o and id = d;
    when 'repair' then
      update defect set repaired_by = me, repaired_at = at, repair = detail where org = o and id = d;
    when 'verify' then
      update defect set verified_by = me, verified_at = at, verify_words = said where org = o and id = d;
    when 'send-back' then
      -- What was repaired is no repair any more; the steps tell of it.
      update defect set repaired_by = null, repaired_at = null, repair = null, verified_by = null, verified_at = null, verify_words = null
        where org = o and id = d;
    when 'watch' then
      update defect set watched_by = me, watched_at = at, watch_words = said, watch_until = (detail->>'until_date')::date,
        watch_hours = (detail->>'until_hours')::float8 where org = o and id = d;
    when 'accept' then
      update defect set accepted_by = me, accepted_at = at, accept_words = said where org = o and id = d;
    when 'return' then
      update defect set returned_by = me, returned_at = at, return_words = said where org = o and id = d;
    when 'worsen' then
      update defect set worsened_at = at, watched_by = null, watched_at = null, watch_until = null, watch_hours = null, watch_words = null
        where org = o and id = d;
    else null;
  end case;
  perform set_config('app.defect_move', '', true);
  insert into defect_step (org, defect, n, action, from_state, to_state, grade, by, at, words, detail)
    select o, d, coalesce(max(n), 0) + 1, act, cur.state, rule.to_state, to_grade, me, at, coalesce(said, ''), coalesce(detail, '{}')
    from defect_step where org = o and defect = d;
end $$;

revoke update on defect from geolabe_app;
revoke update (state, acknowledged_by, acknowledged_at, repaired_by, repaired_at, repair, returned_by, returned_at, return_words, grade, pending, verified_by,
  verified_at, verify_words, watched_by, watched_at, watch_until, watch_hours, watch_words, accepted_by, accepted_at, accept_words, worsened_at)
  on defect from geolabe_app;

-- In one's own name --------------------------------------------------------------------------------------------------------

create function own_name() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.require_person();
    if to_jsonb(new)->>tg_argv[0] is distinct from geolabe.current_person() then
      raise exception 'this is entered in one’s own name' using errcode = 'GL003';
    end if;
  end if;
  return new;
end $$;
create trigger note_own before insert on defect_note for each row execute function own_name('by');
create trigger duty_own before insert on duty_done for each row execute function own_name('by');
create trigger plate_own before insert on plate_value for each row execute function own_name('by');
create trigger shift_own before insert on shift for each row execute function own_name('operator');

-- Everything of a shift is entered by its operator while it is open.
create function own_open_shift(o text, s uuid) returns void language plpgsql stable as $$
declare
  r geolabe.shift;
begin
  perform geolabe.require_person();
  select * into r from geolabe.shift where org = o and id = s;
  if r.operator is distinct from geolabe.current_person() then
    raise exception 'this shift is somebody else’s' using errcode = 'GL003';
  end if;
  if r.closed_at is not null then
    raise exception 'this shift was handed over' using errcode = 'GL004';
  end if;
end $$;
create function of_own_shift() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.own_open_shift(new.org, new.shift);
  end if;
  return new;
end $$;
create trigger setup_own before insert on setup for each row execute function of_own_shift();
create trigger lift_own before insert on lift for each row execute function of_own_shift();
create trigger inspection_own before insert on inspection for each row execute function of_own_shift();
create trigger override_own before insert on override_use for each row execute function of_own_shift();

-- A move of the machine clears what rested on where it stood.
alter table shift add column moved_at timestamptz, add column walkround_revision integer not null default 0;
create function shift_kept() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.own_open_shift(old.org, old.id);
    if new.machine <> old.machine or new.operator <> old.operator or new.opened_at <> old.opened_at or new.sign_on <> old.sign_on then
      raise exception 'who took which machine when is not rewritten' using errcode = 'GL004';
    end if;
  end if;
  return new;
end $$;
create trigger shift_kept before update on shift for each row execute function shift_kept();
grant update (place, moved_at) on shift to geolabe_app;

create function lift_kept() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.own_open_shift(old.org, old.shift);
    if old.outcome is not null then
      raise exception 'how a lift ended is not rewritten' using errcode = 'GL004';
    end if;
  end if;
  return new;
end $$;
create trigger lift_kept before update on lift for each row execute function lift_kept();

-- A finished walk-round stays finished, and what was entered in it stays as it was.
alter table inspection_entry add column entered_at timestamptz not null default now();
create function inspection_kept() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.own_open_shift(old.org, old.shift);
    if (old.finished_at is not null and (new.finished_at, new.items, new.defects, new.duration_s) is distinct from
        (old.finished_at, old.items, old.defects, old.duration_s))
      or (old.raised_at is not null and new.raised_at is not null and new.raised_at is distinct from old.raised_at) then
      raise exception 'a finished walk-round stays finished' using errcode = 'GL004';
    end if;
    if old.raised_at is not null and new.raised_at is null
      and not exists (select from geolabe.shift where org = old.org and id = old.shift and moved_at >= old.raised_at) then
      raise exception 'a finished walk-round stays finished' using errcode = 'GL004';
    end if;
  end if;
  return new;
end $$;
create trigger inspection_kept before update on inspection for each row execute function inspection_kept();
create function mark_kept() returns trigger language plpgsql as $$
declare
  i geolabe.inspection;
begin
  if geolabe.is_app() then
    perform geolabe.own_open_shift(new.org, new.shift);
    select * into i from geolabe.inspection where org = new.org and id = new.inspection and shift = new.shift;
    if not found or new.machine <> i.machine then
      raise exception 'this walk-round is not of this shift' using errcode = 'GL004';
    end if;
    if (i.finished_at is not null and i.occasion <> 'pre-use') or i.raised_at is not null
      or (tg_op = 'UPDATE' and i.finished_at is not null and old.entered_at <= i.finished_at) then
      raise exception 'a finished walk-round stays finished' using errcode = 'GL004';
    end if;
    new.entered_at := now();
  end if;
  return new;
end $$;
create trigger mark_kept before insert or update on inspection_entry for each row execute function mark_kept();
create trigger mark_told after insert or update on inspection_entry for each row execute function tell('marks');

-- The plate is entered once; what it says anew is a new plate, and a decision of the person in charge.
create function plate_kept() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() and not geolabe.has_role('person-in-charge')
    and exists (select from geolabe.plate_value where org = new.org and machine = new.machine and field = new.field) then
    raise exception 'the plate was entered already' using errcode = 'GL004';
  end if;
  return new;
end $$;
create trigger plate_kept before insert on plate_value for each row execute function plate_kept();

create function applied_kept() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() and old.answer is not null then
    raise exception 'an answer is not rewritten' using errcode = 'GL004';
  end if;
  return new;
end $$;
create trigger applied_kept before update on applied for each row execute function applied_kept();

-- The application locks a machine's row; it never changes what a machine is.
create function machine_kept() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    raise exception 'a machine is changed by its file' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger machine_kept before update on machine for each row execute function machine_kept();

-- What follows an override: whose part it is, and another's than who used it.
alter table override_use add column follow_role text not null default 'person-in-charge';
create function override_kept() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.require_person();
    if old.followed_at is not null then
      raise exception 'what followed is recorded already' using errcode = 'GL004';
    end if;
    if new.followed_by is distinct from geolabe.current_person() or not geolabe.has_role(old.follow_role) or old."by" = geolabe.current_person() then
      raise exception 'what follows is the part of the %, and not of who used it', old.follow_role using errcode = 'GL003';
    end if;
    new.followed_at := now();
  end if;
  return new;
end $$;
create trigger override_kept before update on override_use for each row execute function override_kept();

-- Guards that looked away where no person was set.
create or replace function authorisation_guard() returns trigger language plpgsql as $$
begin
  if not geolabe.is_app() then
    return new;
  end if;
  perform geolabe.require_person();
  if not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
    raise exception 'authorisations are given by the person in charge or an administrator' using errcode = 'GL003';
  end if;
  if tg_op = 'INSERT' and (new.person = geolabe.current_person() or new.given_by is distinct from geolabe.current_person()) then
    raise exception 'nobody authorises themselves' using errcode = 'GL003';
  end if;
  if tg_op = 'UPDATE' and (old.withdrawn_at is not null or new.withdrawn_by is distinct from geolabe.current_person()) then
    raise exception 'a withdrawal is not rewritten' using errcode = 'GL004';
  end if;
  return new;
end $$;

create or replace function table_guard() returns trigger language plpgsql as $$
declare
  newest integer;
begin
  if tg_op = 'UPDATE' then
    if new.document <> old.document or new.revision <> old.revision or old.checked_by is not null then
      raise exception 'what was entered or checked is not rewritten' using errcode = 'GL004';
    end if;
    if new.checked_by is distinct from geolabe.current_person() or new.checked_by is null or new.checked_by = old.entered_by then
      raise exception 'somebody else checks it, in their own name' using errcode = 'GL003';
    end if;
    if not geolabe.has_role('person-in-charge') then
      raise exception 'the person in charge checks tables' using errcode = 'GL003';
    end if;
    return new;
  end if;
  perform pg_advisory_xact_lock(hashtextextended('table:' || new.org || ':' || new.id, 0));
  select max(revision) into newest from geolabe.rating_table where org = new.org and id = new.id;
  if newest is not null and new.revision <> newest + 1 then
    raise exception 'revision % is not the one after %', new.revision, newest using errcode = 'GL004';
  end if;
  if not geolabe.is_app() then
    return new;
  end if;
  perform geolabe.require_person();
  if not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
    raise exception 'tables are entered by the person in charge or an administrator' using errcode = 'GL003';
  end if;
  -- What a person enters says why, in their own name, and is checked by nobody yet: so it does not count yet.
  if new.why = '' or new.checked_by is not null or new.entered_by is distinct from geolabe.current_person() then
    raise exception 'a revision is entered in one’s own name, says why, and is not checked yet' using errcode = 'GL004';
  end if;
  return new;
end $$;

-- A walk-round that asks for less than the one in use counts once a second person has checked it. ------------------------------

alter table walkround_revision
  add column shorter boolean not null default false,
  add column checked_by text,
  add column checked_at timestamptz,
  add foreign key (org, checked_by) references person;
create function asked_in(d jsonb) returns text[] language sql immutable as $$
  select array(
    select i->>'id' || case when i->'measure' is not null and i->'measure' <> 'null'::jsonb then ' measured' else '' end
      || ' ' || coalesce((select string_agg(t, ',' order by t) from jsonb_array_elements_text(coalesce(i->'times', '["start"]')) t), '')
    from jsonb_path_query(d, '$.zones[*].items[*]') i)
$$;
create function walkround_in_use(o text, m text) returns jsonb language sql stable as $$
  select coalesce(
    (select document from geolabe.walkround_revision where org = o and machine = m and (not shorter or checked_by is not null)
      order by revision desc limit 1),
    (select document->'walkround' from geolabe.machine where org = o and id = m))
$$;
create or replace function walkround_guard() returns trigger language plpgsql as $$
begin
  if tg_op = 'UPDATE' then
    if new.document <> old.document or old.checked_by is not null then
      raise exception 'what was entered or checked is not rewritten' using errcode = 'GL004';
    end if;
    if new.checked_by is null or new.checked_by is distinct from geolabe.current_person() or new.checked_by = old.entered_by
      or not geolabe.has_role('person-in-charge') then
      raise exception 'another checks it, the person in charge' using errcode = 'GL003';
    end if;
    return new;
  end if;
  new.shorter := not geolabe.asked_in(new.document) @> geolabe.asked_in(geolabe.walkround_in_use(new.org, new.machine));
  if not geolabe.is_app() then
    return new;
  end if;
  perform geolabe.require_person();
  if not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
    raise exception 'a walk-round is changed by the person in charge or an administrator' using errcode = 'GL003';
  end if;
  new.checked_by := null;
  new.checked_at := null;
  if new.entered_by is distinct from geolabe.current_person() then
    raise exception 'this is entered in one’s own name' using errcode = 'GL003';
  end if;
  return new;
end $$;
drop trigger walkround_guard on walkround_revision;
create trigger walkround_guard before insert or update on walkround_revision for each row execute function walkround_guard();
grant update (checked_by, checked_at) on walkround_revision to geolabe_app;
drop trigger walkround_told on walkround_revision;
create trigger walkround_told after insert or update on walkround_revision for each row execute function tell('machines');

-- Journal: a chain a machine, so that writes about one do not wait for those about another. -----------------------------------

create table journal_head (
  org text not null,
  chain text not null,
  n bigint not null,
  hash text not null,
  primary key (org, chain)
);
create sequence journal_seq;
alter table journal add column chain text not null default '', add column n bigint;
alter table journal disable trigger journal_append_only;
-- A person's own entries by person, what is about a machine by machine, the rest by organisation.
create function journal_chain(kind text, subject text, body jsonb) returns text language plpgsql stable as $$
declare
  found_in text;
begin
  found_in := body->>'machine';
  if found_in is null and subject ~ '^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$' then
    select machine into found_in from geolabe.shift where org = geolabe.current_org() and id = subject::uuid;
    if found_in is null then
      select machine into found_in from geolabe.defect where org = geolabe.current_org() and id = subject::uuid;
    end if;
  end if;
  return case when found_in is not null then 'machine ' || found_in
    when geolabe.current_person() is not null then 'person ' || geolabe.current_person() else 'yard' end;
end $$;
drop function journal_text(journal);
create function journal_text(e journal) returns text language sql immutable as $$
  select concat_ws(E'\n', e.prev_hash, e.chain, e.n::text, e.seq::text, to_char(e.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"'),
    coalesce(e.actor, '-'), e.kind, e.subject, e.body::text)
$$;
do $$
declare
  e geolabe.journal;
  last text;
  was text;
begin
  update geolabe.journal j set chain = case when j.body->>'machine' is null then 'yard' else 'machine ' || (j.body->>'machine') end;
  update geolabe.journal j set n = x.n from (select org, seq, row_number() over (partition by org, chain order by seq) as n from geolabe.journal) x
    where x.org = j.org and x.seq = j.seq;
  for e in select * from geolabe.journal order by org, chain, n loop
    if e.n = 1 then
      last := 'begin';
    end if;
    e.prev_hash := last;
    last := encode(sha256(convert_to(geolabe.journal_text(e), 'UTF8')), 'hex');
    update geolabe.journal set prev_hash = e.prev_hash, hash = last where org = e.org and seq = e.seq;
  end loop;
  insert into geolabe.journal_head select distinct on (org, chain) org, chain, n, hash from geolabe.journal order by org, chain, n desc;
  perform setval('geolabe.journal_seq', coalesce((select max(seq) from geolabe.journal), 0) + 1, false);
end $$;
alter table journal alter column n set not null, alter column chain drop default;
create unique index journal_by_chain on journal (org, chain, n);
alter table journal enable trigger journal_append_only;
create or replace function journal_append(kind text, subject text, body jsonb) returns bigint
language plpgsql security definer set search_path = geolabe, pg_temp as $$
declare
  e journal;
  head journal_head;
begin
  if current_org() is null then
    raise exception 'no organisation set';
  end if;
  e.org := current_org();
  e.chain := journal_chain(kind, subject, body);
  insert into journal_head (org, chain, n, hash) values (e.org, e.chain, 0, 'begin') on conflict do nothing;
  -- Held until the write it tells of is done: the next entry of this chain comes after it.
  select * into head from journal_head where org = e.org and chain = e.chain for update;
  e.seq := nextval('journal_seq');
  e.n := head.n + 1;
  e.at := clock_timestamp();
  e.actor := current_person();
  e.kind := kind;
  e.subject := subject;
  e.body := body;
  e.prev_hash := head.hash;
  e.hash := encode(sha256(convert_to(journal_text(e), 'UTF8')), 'hex');
  insert into journal (org, seq, at, actor, kind, subject, body, prev_hash, hash, chain, n)
    values (e.org, e.seq, e.at, e.actor, e.kind, e.subject, e.body, e.prev_hash, e.hash, e.chain, e.n);
  update journal_head set n = e.n, hash = e.hash where org = e.org and chain = e.chain;
  return e.seq;
end $$;

-- How far each chain was counted: what the last entries were, should they be gone.
create function journal_heads() returns table (chain text, n bigint, hash text)
language sql stable security definer set search_path = geolabe, pg_temp as
$$ select chain, n, hash from journal_head where org = current_org() $$;

-- Revisions that a record rests on. ---------------------------------------------------------------------------------------------

create table machine_revision (
  org text not null,
  id text not null,
  revision integer not null,
  document jsonb not null,
  at timestamptz not null default now(),
  primary key (org, id, revision)
);
create table place_revision (like machine_revision including all);
insert into machine_revision (org, id, revision, document) select org, id, revision, document from machine;
alter table place add column revision integer not null default 1;
insert into place_revision (org, id, revision, document) select org, id, revision, document from place;
create function next_revision() returns trigger language plpgsql as $$
begin
  if new.document is distinct from old.document and new.revision <= old.revision then
    new.revision := old.revision + 1;
  end if;
  return new;
end $$;
create trigger machine_next before update on machine for each row execute function next_revision();
create trigger place_next before update on place for each row execute function next_revision();
create function keep_revision() returns trigger language plpgsql security definer set search_path = geolabe, pg_temp as $$
begin
  execute format('insert into %I (org, id, revision, document) values ($1, $2, $3, $4) on conflict do nothing', tg_argv[0])
    using new.org, new.id, new.revision, new.document;
  return new;
end $$;
create trigger machine_revised after insert or update on machine for each row execute function keep_revision('machine_revision');
create trigger place_revised after insert or update on place for each row execute function keep_revision('place_revision');
create trigger machine_revision_kept before update or delete on machine_revision for each row execute function refuse_change();
create trigger place_revision_kept before update or delete on place_revision for each row execute function refuse_change();

-- Files from elsewhere: never among our own records. ------------------------------------------------------------------------------

create table imported_shift (
  org text not null references organisation,
  id uuid not null,
  -- Hash of the file: the same one is taken once.
  digest text not null,
  file jsonb not null,
  machine_name text not null,
  place_name text not null,
  operator_name text not null,
  opened_at timestamptz not null,
  closed_at timestamptz,
  lifts integer not null,
  from_organisation text not null,
  from_installation text not null,
  exported_at timestamptz not null,
  -- Every lift comes out as the file says when it is worked out again.
  recomputes boolean not null,
  imported_by text not null,
  imported_at timestamptz not null default now(),
  primary key (org, id),
  foreign key (org, imported_by) references person
);
create index imported_shift_by_time on imported_shift (org, imported_at desc, id);
create trigger imported_own before insert on imported_shift for each row execute function own_name('imported_by');
create trigger imported_kept before update or delete on imported_shift for each row execute function refuse_change();
create function imported_guard() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() and not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
    raise exception 'files from elsewhere are taken in by the person in charge or an administrator' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger imported_guard before insert on imported_shift for each row execute function imported_guard();

delete from shift s where imported is not null and not exists (select from inspection i where i.org = s.org and i.shift = s.id);
alter table shift drop column imported;
create or replace function shift_guard() returns trigger language plpgsql as $$
begin
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
  if geolabe.is_app() then
    new.opened_at := now();
    new.closed_at := null;
    new.handover := null;
    new.site := null;
  end if;
  return new;
end $$;

do $$
declare
  t text;
begin
  foreach t in array array['defect_step', 'machine_revision', 'place_revision', 'imported_shift', 'journal_head']
  loop
    execute format('alter table geolabe.%I enable row level security', t);
    execute format('alter table geolabe.%I force row level security', t);
    execute format('create policy own on geolabe.%I using (org = geolabe.current_org()) with check (org = geolabe.current_org())', t);
  end loop;
end $$;
grant select on defect_step, machine_revision, place_revision, defect_rule to geolabe_app;
grant select, insert on imported_shift to geolabe_app;

-- At the door: who signs on is looked up, and sessions begin, by a role of its own that sees nothing else. ---------------------------

revoke execute on all functions in schema geolabe from public;
grant execute on all functions in schema geolabe to geolabe_app;
revoke execute on function sign_in_lookup(text, text), session_begin(text, text, text, timestamptz, text), device_known(text, text, text) from geolabe_app;
revoke all on throttle from geolabe_app;
grant usage on schema geolabe to geolabe_door;
grant select, insert, update, delete on throttle to geolabe_door;
grant execute on function sign_in_lookup(text, text), session_begin(text, text, text, timestamptz, text), device_known(text, text, text) to geolabe_door;

-- Down Migration
set search_path to geolabe;
do $$ begin raise exception 'decisions that were written once have no place in the earlier schema'; end $$;
