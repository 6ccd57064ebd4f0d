-- Up Migration
-- Exams of practice: set by an assessor, sat by somebody else, each try begun here so that nobody knows its seed before.
-- SQLSTATE GL009: the exam is over; GL010: a run that says it is a try and is another.
set search_path to geolabe;

-- Places that were there before answer as one without an answer.
update place set document = jsonb_set(document, '{policy,practice}', '{"before": "recommended", "absence_days": 90, "counts_days": 180}')
  where not document->'policy' ? 'practice';
update place_drawing set document = jsonb_set(document, '{policy,practice}', '{"before": "recommended", "absence_days": 90, "counts_days": 180}')
  where not document->'policy' ? 'practice';

create table practice_exam (
  org text not null,
  id uuid not null,
  person text not null,
  set_by text not null,
  machine text not null,
  machine_revision integer not null check (machine_revision > 0),
  -- What of the machine is practised, in short: another one is another machine.
  practised_on text not null,
  game text not null check (game in ('load', 'judge', 'signal', 'drive', 'sequence')),
  level double precision not null check (level between 0 and 1),
  tries integer not null check (tries between 1 and 10),
  until date not null,
  -- What the assessor has set of load control: swing, wind, clock.
  settings jsonb,
  -- No try goes on before the assessor's word.
  word boolean not null default false,
  at timestamptz not null default now(),
  primary key (org, id),
  foreign key (org, person) references person,
  foreign key (org, set_by) references person,
  foreign key (org, machine) references machine,
  constraint assessed_by_another check (person <> set_by)
);
create index exam_by_person on practice_exam (org, person, at desc);
create index exam_by_assessor on practice_exam (org, set_by, at desc);

-- A try carries the id that its run will have.
create table practice_try (
  org text not null,
  id uuid not null,
  exam uuid not null,
  number integer not null check (number > 0),
  seed bigint not null check (seed between 0 and 4294967295),
  begun_at timestamptz not null default now(),
  word_at timestamptz,
  primary key (org, id),
  unique (org, exam, number),
  foreign key (org, exam) references practice_exam
);

create table practice_note (
  org text not null,
  id uuid not null,
  try uuid not null,
  by text not null,
  at_s double precision check (at_s between 0 and 1200),
  score double precision check (score between 0 and 100),
  words text not null,
  at timestamptz not null default clock_timestamp(),
  primary key (org, id),
  foreign key (org, try) references practice_try,
  foreign key (org, by) references person
);
create index note_by_try on practice_note (org, try, at);

create table practice_certificate (
  org text not null,
  id uuid not null,
  exam uuid not null,
  person text not null,
  by text not null,
  machine text not null,
  kind text not null,
  -- As it was signed.
  document jsonb not null,
  practised_on text not null,
  issued_on date not null,
  valid_until date not null,
  at timestamptz not null default now(),
  primary key (org, id),
  unique (org, exam),
  foreign key (org, exam) references practice_exam,
  foreign key (org, person) references person,
  foreign key (org, machine) references machine,
  foreign key (org, by) references person
);
create index certificate_by_person on practice_certificate (org, person, at desc);

-- What was done in a try that is under way, for its assessor to watch; gone as soon as its run is kept.
create table practice_so_far (
  org text not null,
  try uuid not null,
  ticks integer not null check (ticks > 0),
  run jsonb not null,
  primary key (org, try),
  foreign key (org, try) references practice_try
);

create function exam_guard() returns trigger language plpgsql as $$
begin
  if not geolabe.has_role('assessor') or new.set_by is distinct from geolabe.current_person() then
    raise exception 'exams are set by an assessor' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger exam_guard before insert on practice_exam for each row execute function exam_guard();

create function try_guard() returns trigger language plpgsql security definer set search_path = geolabe, pg_temp as $$
declare
  e practice_exam;
begin
  -- Of two tries that begin at once one goes first.
  select * into e from practice_exam where org = new.org and id = new.exam for update;
  if e.person is distinct from current_person() then
    raise exception 'an exam is sat by who it was set for' using errcode = 'GL003';
  end if;
  if e.until < current_date or (select count(*) from practice_try t where t.org = new.org and t.exam = new.exam) >= e.tries then
    raise exception 'the exam is over' using errcode = 'GL009';
  end if;
  if exists (select from practice_run r where r.org = new.org and r.id = new.id) then
    raise exception 'this id is a run that is over' using errcode = 'GL010';
  end if;
  return new;
end $$;
create trigger try_guard before insert on practice_try for each row execute function try_guard();

-- Of a try the app can change nothing but that the word is given; that once, by who set the exam.
create function word_guard() returns trigger language plpgsql as $$
begin
  if new.word_at is null or old.word_at is not null or not exists (
    select from geolabe.practice_exam e where e.org = new.org and e.id = new.exam and e.word and e.set_by = geolabe.current_person()
  ) then
    raise exception 'the word is given once, by the assessor who set the exam' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger word_guard before update of word_at on practice_try for each row execute function word_guard();

create function practice_note_guard() returns trigger language plpgsql as $$
begin
  if new."by" is distinct from geolabe.current_person() or not exists (
    select from geolabe.practice_try t join geolabe.practice_exam e on e.org = t.org and e.id = t.exam
    where t.org = new.org and t.id = new.try and e.set_by = geolabe.current_person()
  ) then
    raise exception 'notes are the assessor’s who set the exam' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger practice_note_guard before insert on practice_note for each row execute function practice_note_guard();

-- Who sits a try says how far it has come, forward only, until its run is kept.
create function so_far_guard() returns trigger language plpgsql security definer set search_path = geolabe, pg_temp as $$
begin
  if not exists (
    select from practice_try t join practice_exam e on e.org = t.org and e.id = t.exam
    where t.org = new.org and t.id = new.try and e.person = current_person() and (t.word_at is not null or not e.word)
  ) or exists (select from practice_run r where r.org = new.org and r.id = new.try) then
    raise exception 'a try is told of by who sits it, while it is under way' using errcode = 'GL010';
  end if;
  if tg_op = 'UPDATE' and new.ticks < old.ticks then
    return old;
  end if;
  return new;
end $$;
create trigger so_far_guard before insert or update on practice_so_far for each row execute function so_far_guard();

create function run_is_whole() returns trigger language plpgsql security definer set search_path = geolabe, pg_temp as $$
begin
  delete from practice_so_far where org = new.org and try = new.id;
  return null;
end $$;
create trigger run_is_whole after insert on practice_run for each row execute function run_is_whole();

create function certificate_guard() returns trigger language plpgsql as $$
begin
  if not geolabe.has_role('assessor') or new."by" is distinct from geolabe.current_person() or not exists (
    select from geolabe.practice_exam e where e.org = new.org and e.id = new.exam and e.set_by = new."by" and e.person = new.person
  ) then
    raise exception 'certificates are issued by the assessor who set the exam' using errcode = 'GL003';
  end if;
  return new;
end $$;
create trigger certificate_guard before insert on practice_certificate for each row execute function certificate_guard();

-- A run that carries the id of a try is that try, or is refused: whoever sends it, and whatever they may see of exams.
create function run_is_its_try() returns trigger language plpgsql security definer set search_path = geolabe, pg_temp as $$
begin
  if exists (
    select from practice_try t join practice_exam e on e.org = t.org and e.id = t.exam
    where t.org = new.org and t.id = new.id
      and ((e.person, e.machine, e.machine_revision, e.game, t.seed, e.level, e.settings) is distinct from
        (new.person, new.machine, new.machine_revision, new.game, (new.run->>'seed')::bigint, (new.run->>'level')::double precision,
          new.run->'settings')
        or (e.word and t.word_at is null))
  ) or (
    -- What an assessor sets is set for a try and for nothing else.
    new.run ? 'settings' and not exists (select from practice_try t where t.org = new.org and t.id = new.id)
  ) then
    raise exception 'this run is not its try' using errcode = 'GL010';
  end if;
  return new;
end $$;
create trigger run_is_its_try before insert on practice_run for each row execute function run_is_its_try();

-- Runs are their maker's alone; of a try the assessor who set it sees the run, by this and by nothing else.
create function runs_of_exam(which uuid) returns setof practice_run
language sql stable security definer set search_path = geolabe, pg_temp as $$
  select r.* from practice_run r
  join practice_try t on t.org = r.org and t.id = r.id
  join practice_exam e on e.org = t.org and e.id = t.exam
  where e.org = current_org() and e.id = which and current_person() in (e.person, e.set_by)
    -- A run made before its try began, under an id that the try then took, is another.
    and r.at >= t.begun_at
    and (e.person, e.machine, e.machine_revision, e.game, t.seed, e.level, e.settings) is not distinct from
      (r.person, r.machine, r.machine_revision, r.game, (r.run->>'seed')::bigint, (r.run->>'level')::double precision,
        r.run->'settings')
$$;

do $$
declare
  t text;
begin
  foreach t in array array['practice_exam', 'practice_try', 'practice_note', 'practice_certificate', 'practice_so_far']
  loop
    execute format('alter table geolabe.%I enable row level security', t);
    execute format('alter table geolabe.%I force row level security', t);
    execute format('grant select, insert on geolabe.%I to geolabe_app', t);
  end loop;
end $$;
-- Who sits an exam and who set it; nobody else knows of it.
create policy theirs on practice_exam using (org = current_org() and current_person() in (person, set_by)) with check (org = current_org());
create policy theirs on practice_try
  using (org = current_org() and exists (select from practice_exam e where e.org = practice_try.org and e.id = practice_try.exam))
  with check (org = current_org());
create policy theirs on practice_note
  using (org = current_org() and exists (select from practice_try t where t.org = practice_note.org and t.id = practice_note.try))
  with check (org = current_org());
create policy theirs on practice_so_far
  using (org = current_org() and exists (select from practice_try t where t.org = practice_so_far.org and t.id = practice_so_far.try))
  with check (org = current_org());
-- A certificate is shown to those who decide who works a machine; how often somebody tried is not.
create policy theirs on practice_certificate
  using (org = current_org() and (current_person() in (person, by) or has_role('person-in-charge') or has_role('administrator')))
  with check (org = current_org());
-- What stands does not change.
create trigger kept before update or delete on practice_certificate for each row execute function refuse_change();
create trigger kept before update or delete on practice_note for each row execute function refuse_change();
grant execute on function runs_of_exam(uuid) to geolabe_app;
grant update (word_at) on practice_try to geolabe_app;
grant update (ticks, run) on practice_so_far to geolabe_app;

-- Down Migration
set search_path to geolabe;
update place set document = document #- '{policy,practice}';
update place_drawing set document = document #- '{policy,practice}';
drop table practice_certificate, practice_note, practice_so_far;
drop trigger run_is_its_try on practice_run;
drop trigger run_is_whole on practice_run;
drop function runs_of_exam(uuid), run_is_its_try(), run_is_whole(), so_far_guard();
drop table practice_try, practice_exam;
drop function exam_guard(), try_guard(), word_guard(), practice_note_guard(), certificate_guard();
