-- What holds for the account as a whole is an item of its own, made with the account. The network knows it from the start.
insert into account_item (account_id, removed, is_live, review) select id, false, true, 0 from account;

create function make_account_item() returns trigger language plpgsql as $$
declare step text := current_setting('fendrik.step', true);
begin
  perform set_config('fendrik.step', '0', true);
  insert into account_item (account_id, removed, is_live, review) values (new.id, false, true, 0);
  perform set_config('fendrik.step', coalesce(step, ''), true);
  return null;
end $$;
create trigger make_account_item after insert on account for each row execute function make_account_item();
