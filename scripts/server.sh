# Starting and stopping the web application.

PID_FILE=$POLYCLAVE_HOME/server.pid

server_pid() {
    pid=$(cat "$PID_FILE" 2>/dev/null || true)
    [ -n "$pid" ] && cat "/proc/$pid/cmdline" 2>/dev/null | tr '\0' ' ' | grep -q 'polyclave-server' && echo "$pid"
}

prepare() {
    make_home
    if [ -n "$(server_pid || true)" ]; then
        die "Polyclave runs already (process $(server_pid)). Open http://127.0.0.1:$POLYCLAVE_PORT or stop it with './polyclave stop'."
    fi
    if port_in_use "$POLYCLAVE_PORT"; then
        die "Port $POLYCLAVE_PORT is in use by another program. Stop that, or choose another with POLYCLAVE_PORT=8421 ./polyclave ..."
    fi
    need_java
    build_server
    if [ -z "${POLYCLAVE_DB_URL:-}" ]; then
        # A large import writes a gigabyte at once: enough room not to stop for a checkpoint again and again meanwhile.
        start_postgres pg -c shared_buffers=512MB -c max_wal_size=4GB -c checkpoint_timeout=15min
    fi
}

launch() {
    mkdir -p "$POLYCLAVE_HOME/log"
    : >"$POLYCLAVE_HOME/log/server.log"
    # A session of its own, so that Ctrl+C reaches the launcher only and it can stop everything in order.
    setsid "$JAVA" -XX:+UseSerialGC -Xms1g -Xmx2g -XX:MetaspaceSize=128m -jar "$(jar_of server exec)" "$@" >"$POLYCLAVE_HOME/log/server.log" 2>&1 </dev/null &
    launched=$!
    echo "$launched" >"$PID_FILE"
    tries=0
    until is_serving; do
        tries=$((tries + 1))
        # Not server_pid: at first the process is still the shell, which has yet to become the server.
        if ! kill -0 "$launched" 2>/dev/null || [ $tries -gt 240 ]; then
            tail -n 20 "$POLYCLAVE_HOME/log/server.log" >&2
            stop >/dev/null
            die "The server did not start. The whole output is in $POLYCLAVE_HOME/log/server.log."
        fi
        sleep 0.5
    done
}

is_serving() {
    port_in_use "$POLYCLAVE_PORT" || return 1
    grep -q 'Ready for readers' "$POLYCLAVE_HOME/log/server.log"
}

demo() {
    prepare
    launch --polyclave.demo=true
    say ""
    say "Polyclave serves on http://127.0.0.1:$POLYCLAVE_PORT"
    say "Demo accounts (one click on the sign-in page):"
    say "  isolde / meadow-author     author of the demo study"
    say "  oswin  / meadow-scorer     second scorer"
    say "  petra  / meadow-reader     reader"
    say "  lark   / meadow-learner    learner"
    say "  warden / meadow-warden     administrator"
    say "Ctrl+C ends it; the data stay."
    trap 'say ""; say "Stopping ..."; stop; exit 0' INT TERM HUP
    while kill -0 "$launched" 2>/dev/null; do
        sleep 1 &
        wait $! || true
    done
    # Whoever stops it from elsewhere takes the file away, and may have started another since.
    [ "$(cat "$PID_FILE" 2>/dev/null)" = "$launched" ] || exit 0
    stop
    die "The server ended by itself. See $POLYCLAVE_HOME/log/server.log."
}

start() {
    prepare
    if [ ! -f "$POLYCLAVE_HOME/admin.password" ]; then
        (umask 077 && od -An -N12 -tx1 /dev/urandom | tr -d ' \n' >"$POLYCLAVE_HOME/admin.password")
    fi
    POLYCLAVE_FIRST_ADMIN_PASSWORD=$(cat "$POLYCLAVE_HOME/admin.password")
    export POLYCLAVE_FIRST_ADMIN_PASSWORD
    launch
    say "Polyclave serves on http://127.0.0.1:$POLYCLAVE_PORT"
    say "In a new installation the first account is 'admin'; its password is in $POLYCLAVE_HOME/admin.password."
}

stop() {
    pid=$(server_pid || true)
    if [ -n "$pid" ]; then
        kill "$pid" 2>/dev/null || true
        tries=0
        while [ -d "/proc/$pid" ] && [ $tries -lt 80 ]; do
            tries=$((tries + 1))
            sleep 0.25
        done
        [ -d "/proc/$pid" ] && kill -9 "$pid" 2>/dev/null || true
    fi
    rm -f "$PID_FILE"
    PG_BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1)
    if [ -n "$PG_BIN" ] && [ -d "$POLYCLAVE_HOME" ]; then
        choose_pg_data pg
        stop_postgres
    fi
    say "Stopped."
}

status() {
    pid=$(server_pid || true)
    if [ -n "$pid" ]; then
        say "The server runs (process $pid) on http://127.0.0.1:$POLYCLAVE_PORT."
    else
        say "The server does not run."
    fi
}

backup() {
    [ $# = 1 ] || { usage >&2; exit 64; }
    start_postgres pg
    "$PG_BIN/pg_dump" -h 127.0.0.1 -p "$PG_PORT" -U polyclave -Fc -f "$1" polyclave || die "The backup failed; $1 is not usable."
    [ "$PG_STARTED" = yes ] && stop_postgres
    say "Written to $1."
}

restore() {
    [ $# = 1 ] && [ -f "$1" ] || { usage >&2; exit 64; }
    [ -z "$(server_pid || true)" ] || die "Stop the server first: './polyclave stop'."
    start_postgres pg
    tables=$("$PG_BIN/psql" -h 127.0.0.1 -p "$PG_PORT" -U polyclave -d polyclave -tAc "select count(*) from information_schema.tables where table_schema = 'public'")
    [ "$tables" = 0 ] || die "The database is not empty. Restore into a new installation: set POLYCLAVE_HOME to a new folder."
    "$PG_BIN/pg_restore" -h 127.0.0.1 -p "$PG_PORT" -U polyclave -d polyclave --exit-on-error --single-transaction "$1" || die "The file could not be restored; nothing was changed."
    [ "$PG_STARTED" = yes ] && stop_postgres
    say "Restored from $1."
}
