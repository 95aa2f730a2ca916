-- Editions as they are sent: compressed once for each format, and made again from the edition where it is missing.
create table edition_packed (
    slug   text not null,
    number int not null,
    format int not null,
    packed bytea not null,
    primary key (slug, number, format),
    foreign key (slug, number) references edition (slug, number)
);
