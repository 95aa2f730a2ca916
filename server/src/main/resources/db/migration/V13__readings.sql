-- Readings of specimens stand among the small objects of a study; an instrument's may be many.
alter table study_entry drop constraint study_entry_kind_check;
alter table study_entry add constraint study_entry_kind_check
    check (kind in ('term', 'reference', 'claim', 'picture', 'opinion', 'specimen', 'reading'));
