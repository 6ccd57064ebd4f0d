-- Up Migration
set search_path to geolabe;

-- Of a step of two people the second one tells, in somebody else's open shift and under their own name, that they have seen it; and nothing else.
create function is_second(kind text, body jsonb, actor text) returns boolean language sql immutable as $$
  select coalesce(kind = 'order' and jsonb_array_length(body->'events') = 1
    and body->'events'->0->>'do' = 'second' and body->'events'->0->'by'->>'id' = actor, false)
$$;
create function second_own() returns trigger language plpgsql as $$
begin
  if geolabe.is_app() then
    perform geolabe.require_person();
    if new.actor is distinct from geolabe.current_person() then
      raise exception 'an event is told by whoever did it' using errcode = 'GL003';
    end if;
    if not exists (select from geolabe.shift where org = new.org and id = new.shift and closed_at is null) then
      raise exception 'this shift was handed over' using errcode = 'GL004';
    end if;
    new.at := now();
  end if;
  return new;
end $$;
drop trigger shift_event_own on shift_event;
create trigger shift_event_own before insert on shift_event for each row
  when (not is_second(new.kind, new.body, new.actor)) execute function shift_event_own();
create trigger second_own before insert on shift_event for each row
  when (is_second(new.kind, new.body, new.actor)) execute function second_own();
-- The device at the machine waits for it.
create trigger second_told after insert on shift_event for each row
  when (is_second(new.kind, new.body, new.actor)) execute function tell('shifts');
revoke execute on function is_second(text, jsonb, text), second_own() from public;
grant execute on function is_second(text, jsonb, text), second_own() to geolabe_app;

-- Down Migration
set search_path to geolabe;
drop trigger second_told on shift_event;
drop trigger second_own on shift_event;
drop trigger shift_event_own on shift_event;
create trigger shift_event_own before insert on shift_event for each row execute function shift_event_own();
drop function second_own();
drop function is_second(text, jsonb, text);
