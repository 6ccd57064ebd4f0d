-- Up Migration
-- Tables in every shape, with revisions. A machine's geometry may be known before its walk-round is written: its tables are
-- checked against that, so a table no longer needs the whole machine to be there.
set search_path to geolabe;

create table machine_model (
  org text not null references organisation,
  id text not null,
  document jsonb not null,
  primary key (org, id)
);

alter table rating_table drop constraint rating_table_org_machine_fkey;
alter table rating_table
  add column entered_at timestamptz not null default now(),
  add column entered_by text,
  add column why text not null default '',
  add column checked_by text,
  add column checked_at timestamptz,
  add foreign key (org, entered_by) references person,
  add foreign key (org, checked_by) references person;

-- Revisions follow one another; what was entered is not rewritten; another person checks it.
create function table_guard() returns trigger language plpgsql as $$
declare
  newest integer;
begin
  if tg_op = 'UPDATE' then
    if new.document <> old.document or new.revision <> old.revision or old.checked_by is not null then
      raise exception 'what was entered or checked is not rewritten' using errcode = 'GL004';
    end if;
    if new.checked_by is distinct from geolabe.current_person() or new.checked_by = old.entered_by then
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
  if geolabe.current_person() is not null and not (geolabe.has_role('person-in-charge') or geolabe.has_role('administrator')) then
    raise exception 'tables are entered by the person in charge or an administrator' using errcode = 'GL003';
  end if;
  -- What a person enters says why, in their own name, and is checked by nobody yet: so it does not count yet.
  if geolabe.current_person() is not null
    and (new.why = '' or new.checked_by is not null or new.entered_by is distinct from geolabe.current_person()) then
    raise exception 'a revision is entered in one’s own name, says why, and is not checked yet' using errcode = 'GL004';
  end if;
  return new;
end $$;
create trigger table_guard before insert or update on rating_table for each row execute function table_guard();
create trigger table_told after insert or update on rating_table for each row execute function tell('tables');

alter table machine_model enable row level security;
alter table machine_model force row level security;
create policy own on machine_model using (org = current_org()) with check (org = current_org());
grant select on machine_model to geolabe_app;
grant insert on rating_table to geolabe_app;
grant update (checked_by, checked_at) on rating_table to geolabe_app;
grant execute on function table_guard() to geolabe_app;

-- Down Migration
set search_path to geolabe;
drop trigger table_guard on rating_table;
drop trigger table_told on rating_table;
drop function table_guard();
drop table machine_model;
alter table rating_table drop column entered_at, drop column entered_by, drop column why, drop column checked_by, drop column checked_at;
