-- What a score refers to is checked once a statement instead of once a score: three look-ups for each of the million scores of
-- a large import took two thirds of its time. Everybody who writes holds the lock of the study, so that no row or character
-- goes away between a check and the end of its transaction.
alter table score
    drop constraint score_scorer_id_fkey,
    drop constraint score_study_id_row_id_fkey,
    drop constraint score_study_id_character_id_fkey;

create function check_written_scores() returns trigger language plpgsql as $$
begin
    if exists (select from (select distinct study_id, row_id from written) w
               where not exists (select from study_row r where r.study_id = w.study_id and r.id = w.row_id)) then
        raise foreign_key_violation using message = 'A score is of a row that its study does not have';
    end if;
    if exists (select from (select distinct study_id, character_id from written) w
               where not exists (select from study_character c where c.study_id = w.study_id and c.id = w.character_id)) then
        raise foreign_key_violation using message = 'A score is of a character that its study does not have';
    end if;
    if exists (select from (select distinct scorer_id from written where scorer_id is not null) w
               where not exists (select from account a where a.id = w.scorer_id)) then
        raise foreign_key_violation using message = 'A score is by an account that does not exist';
    end if;
    return null;
end $$;

create trigger inserted_scores after insert on score
    referencing new table as written for each statement execute function check_written_scores();
create trigger updated_scores after update on score
    referencing new table as written for each statement execute function check_written_scores();

create function remove_scores_of_rows() returns trigger language plpgsql as $$
begin
    delete from score s using gone g where s.study_id = g.study_id and s.row_id = g.id;
    return null;
end $$;

create function remove_scores_of_characters() returns trigger language plpgsql as $$
begin
    delete from score s using gone g where s.study_id = g.study_id and s.character_id = g.id;
    return null;
end $$;

create trigger removed_rows after delete on study_row
    referencing old table as gone for each statement execute function remove_scores_of_rows();
create trigger removed_characters after delete on study_character
    referencing old table as gone for each statement execute function remove_scores_of_characters();
