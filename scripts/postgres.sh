# A PostgreSQL cluster of Polyclave's own, on loopback only. As root it runs as the user postgres.

as_postgres() {
    if [ "$(id -u)" = 0 ]; then
        (cd / && runuser -u postgres -- "$@")
    else
        "$@"
    fi
}

# Chooses where a cluster lives: in POLYCLAVE_HOME, or where the user postgres can reach it.
choose_pg_data() {
    PG_DATA=$POLYCLAVE_HOME/$1
    if [ "$(id -u)" = 0 ]; then
        mkdir -p "$PG_DATA"
        chown postgres "$PG_DATA"
        if ! as_postgres test -w "$PG_DATA"; then
            rmdir "$PG_DATA" 2>/dev/null || true
            PG_DATA=/var/lib/polyclave/$(printf '%s' "$ROOT" | cksum | cut -d ' ' -f 1)-$1
            mkdir -p "$PG_DATA"
            chown postgres "$PG_DATA"
        fi
    fi
    PG_PORT_FILE=$POLYCLAVE_HOME/$1.port
    PG_PASSWORD_FILE=$POLYCLAVE_HOME/$1.password
    PG_ADMIN_PASSWORD_FILE=$POLYCLAVE_HOME/$1.admin.password
}

make_password() {
    (umask 077 && od -An -N24 -tx1 /dev/urandom | tr -d ' \n' >"$1")
}

make_cluster() {
    [ -f "$PG_DATA/PG_VERSION" ] && [ -f "$PG_PASSWORD_FILE" ] && return
    say "Making a database cluster ..."
    make_password "$PG_PASSWORD_FILE"
    make_password "$PG_ADMIN_PASSWORD_FILE"
    # The password reaches initdb in a file that only its user can read, never on a command line.
    pwfile=$(mktemp)
    cat "$PG_ADMIN_PASSWORD_FILE" >"$pwfile"
    [ "$(id -u)" != 0 ] || chown postgres "$pwfile"
    as_postgres "$PG_BIN/initdb" -D "$PG_DATA" -U polyclave_admin -E UTF8 --locale=C.UTF-8 --auth=scram-sha-256 \
        --pwfile="$pwfile" >"$POLYCLAVE_HOME/log/initdb.log" 2>&1 || {
        rm -f "$pwfile"
        die "The database cluster could not be made. See $POLYCLAVE_HOME/log/initdb.log."
    }
    rm -f "$pwfile"
}

is_pg_running() {
    [ -f "$PG_DATA/PG_VERSION" ] && as_postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" status >/dev/null 2>&1
}

# Starts the cluster on a free port, which is remembered. Further words are options of the server.
start_postgres() {
    make_home
    mkdir -p "$POLYCLAVE_HOME/log"
    need_postgres
    choose_pg_data "$1"
    shift
    make_cluster
    PG_STARTED=no
    if ! is_pg_running; then
        port=$(cat "$PG_PORT_FILE" 2>/dev/null || echo 54320)
        tries=0
        until try_postgres "$@"; do
            tries=$((tries + 1))
            # Another program may take the port between the look and the server's own try.
            port_in_use "$port" && [ $tries -lt 5 ] || die "PostgreSQL did not start. See $PG_DATA/server.log."
        done
        PG_STARTED=yes
    fi
    PG_PORT=$(cat "$PG_PORT_FILE")
    PGPASSWORD=$(cat "$PG_PASSWORD_FILE")
    export PGPASSWORD
    [ -f "$PG_ADMIN_PASSWORD_FILE" ] || lower_application_role
    role=$(psql_admin -tAc "select 1 from pg_roles where rolname = 'polyclave'")
    [ "$role" = 1 ] || printf "create role polyclave login password '%s';\n" "$PGPASSWORD" | psql_admin -q
    database=$(psql_admin -tAc "select 1 from pg_database where datname = 'polyclave'")
    [ "$database" = 1 ] || psql_admin -qc 'create database polyclave owner polyclave'
    POLYCLAVE_DB_URL=jdbc:postgresql://127.0.0.1:$PG_PORT/polyclave
    POLYCLAVE_DB_USER=polyclave
    POLYCLAVE_DB_PASSWORD=$PGPASSWORD
    export POLYCLAVE_DB_URL POLYCLAVE_DB_USER POLYCLAVE_DB_PASSWORD
}

try_postgres() {
    while port_in_use "$port"; do
        port=$((port + 1))
    done
    echo "$port" >"$PG_PORT_FILE"
    # After a crash of a large database recovery takes its time.
    as_postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" -w -t 600 -l "$PG_DATA/server.log" \
        -o "-c listen_addresses=127.0.0.1 -c port=$port -c unix_socket_directories=$PG_DATA $*" start >/dev/null
}

# In clusters of earlier versions the application was the superuser; whoever breaks into it is not to rule the cluster.
lower_application_role() {
    make_password "$PG_ADMIN_PASSWORD_FILE.new"
    # On its input, never on a command line.
    printf "create role polyclave_admin login superuser password '%s';\n" "$(cat "$PG_ADMIN_PASSWORD_FILE.new")" |
        "$PG_BIN/psql" -h 127.0.0.1 -p "$PG_PORT" -U polyclave -d postgres -qv ON_ERROR_STOP=1 ||
        die "The database's administrator could not be made. See $PG_DATA/server.log."
    mv "$PG_ADMIN_PASSWORD_FILE.new" "$PG_ADMIN_PASSWORD_FILE"
    psql_admin -qc 'alter role polyclave nosuperuser nocreatedb nocreaterole noreplication nobypassrls' ||
        say "The application's database role is still a superuser; this version of PostgreSQL does not let it be changed."
}

psql_admin() {
    PGPASSWORD=$(cat "$PG_ADMIN_PASSWORD_FILE") "$PG_BIN/psql" -h 127.0.0.1 -p "$PG_PORT" -U polyclave_admin -d postgres "$@"
}

stop_postgres() {
    if is_pg_running; then
        as_postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" -m fast -w stop >/dev/null || say "PostgreSQL did not stop in time."
    fi
}
