# Every test, against a database cluster of its own.

# With --deep, also mutates the rules of safety and proof, and fails if too many mutations go unnoticed.
run_tests() {
    deep=no
    if [ "${1:-}" = --deep ]; then
        deep=yes
        shift
    fi
    need_build_tools
    need_chromium
    start_postgres pg-test -c fsync=off -c synchronous_commit=off -c full_page_writes=off
    trap 'stop_postgres' EXIT INT TERM
    # Each run of the tests makes databases.
    psql_admin -tAc "select datname from pg_database where datname ~ '^polyclave_(test|demo)_'" | while read -r old; do
        psql_admin -qc "drop database $old with (force)"
    done
    psql_admin -qc 'alter role polyclave createdb' -c 'drop database if exists polyclave_test with (force)' -c 'create database polyclave_test owner polyclave'
    POLYCLAVE_TEST_DB_URL=jdbc:postgresql://127.0.0.1:$PG_PORT/
    export POLYCLAVE_TEST_DB_URL
    # The tests of one run share the demo that the first of them makes.
    POLYCLAVE_TEST_RUN=$$
    export POLYCLAVE_TEST_RUN
    export PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1
    # On two cores a build is over before the best compiler pays for itself.
    MAVEN_OPTS="${MAVEN_OPTS:-} -XX:TieredStopAtLevel=1"
    export MAVEN_OPTS
    (cd "$ROOT" && mvn -B -T 2 --no-transfer-progress verify "$@")
    [ "$deep" = no ] || (cd "$ROOT" && mvn -B --no-transfer-progress -pl core -Pdeep test-compile org.pitest:pitest-maven:mutationCoverage)
}
