-- Up Migration
set search_path to geolabe;

-- An order of work as somebody wrote it, until a second person has read it; what was written and said is kept.
create table order_revision (
  org text not null,
  id uuid not null,
  machine text not null,
  -- The revision that it was written over, 0 being the machine’s own; and the one that it became.
  based_on integer not null,
  revision integer check (revision > 0),
  document jsonb not null,
  why text not null check (why <> ''),
  written_by text not null,
  written_at timestamptz not null default now(),
  state text not null default 'open' check (state in ('open', 'taken', 'returned', 'replaced')),
  checked_by text,
  checked_at timestamptz,
  words text not null default '',
  primary key (org, id),
  unique (org, machine, revision),
  check ((revision is not null) = (state = 'taken')),
  foreign key (org, machine) references machine,
  foreign key (org, written_by) references person,
  foreign key (org, checked_by) references person
);
create unique index one_open_order on order_revision (org, machine) where state = 'open';
create index order_by_machine on order_revision (org, machine, written_at);

create function order_guard() returns trigger language plpgsql as $$
begin
  if not geolabe.is_app() then
    return new;
  end if;
  perform geolabe.require_person();
  if tg_op = 'INSERT' then
    if not geolabe.has_role('administrator') then
      raise exception 'an order of work is written by an administrator' using errcode = 'GL003';
    end if;
    if new.written_by is distinct from geolabe.current_person() or new.state <> 'open' or new.checked_by is not null then
      raise exception 'an order is written in one’s own name, and is checked by nobody yet' using errcode = 'GL004';
    end if;
    return new;
  end if;
  if old.state <> 'open' or new.state = 'open' then
    raise exception 'what was decided of an order stands' using errcode = 'GL004';
  end if;
  -- A newer one takes its place, written by whoever may write; nobody has to have read the older.
  if new.state = 'replaced' then
    if not geolabe.has_role('administrator') then
      raise exception 'an order of work is written by an administrator' using errcode = 'GL003';
    end if;
    return new;
  end if;
  if new.checked_by is distinct from geolabe.current_person() or not geolabe.has_role('person-in-charge')
    or (new.state = 'taken' and new.checked_by = old.written_by) then
    raise exception 'the person in charge puts an order in force, another than who wrote it' using errcode = 'GL003';
  end if;
  if new.state = 'taken' and exists (select from geolabe.shift where org = new.org and machine = new.machine and closed_at is null) then
    raise exception 'a shift is under way on this machine; its order changes after the handover' using errcode = 'GL004';
  end if;
  if new.state = 'taken' and new.revision <> 1 + old.based_on then
    raise exception 'an order follows the one that it was written over' using errcode = 'GL004';
  end if;
  return new;
end $$;
create trigger order_guard before insert or update on order_revision for each row execute function order_guard();
create trigger order_told after insert or update on order_revision for each row execute function tell('machines');
alter table order_revision enable row level security;
alter table order_revision force row level security;
create policy own on order_revision using (org = current_org()) with check (org = current_org());
grant select, insert on order_revision to geolabe_app;
grant update (state, revision, checked_by, checked_at, words) on order_revision to geolabe_app;
revoke execute on function order_guard() from public;
grant execute on function order_guard() to geolabe_app;

-- By which order a shift was worked.
alter table shift add column order_revision integer not null default 0;

-- Down Migration
set search_path to geolabe;
alter table shift drop column order_revision;
drop table order_revision;
drop function order_guard();
