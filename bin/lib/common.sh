# Shared by bin/start, bin/test and bin/bench. Source it; it sets ROOT and defines the steps.
set -euo pipefail
ROOT="$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)"
cd "$ROOT"
export COMPOSER_ALLOW_SUPERUSER=1 COMPOSER_NO_INTERACTION=1
ME="$(id -un)"

say() { printf '  %s\n' "$*"; }
fail() { printf '\n  %s\n\n' "$*" >&2; exit 1; }

# Runs a long step quietly, with dots while it lasts; on failure it shows the end of what the step printed.
step() {
    local label="$1" log; shift
    log="$(mktemp)"
    printf '  %s ' "$label"
    "$@" >"$log" 2>&1 &
    local pid=$! began=$SECONDS
    while kill -0 "$pid" 2>/dev/null; do
        sleep 0.2
        if (( (SECONDS - began) > 1 )); then printf '.'; began=$SECONDS; fi
    done
    if wait "$pid"; then printf ' done\n'; rm -f "$log"; else
        printf ' failed\n\n' >&2; tail -n 40 "$log" >&2; rm -f "$log"; exit 1
    fi
}

# What bash's own redirection can tell: 0 when something listens on the loopback port.
listening() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# Refuses a busy port with the name of the program that holds it, where the system tells.
need_port() {
    listening "$1" || return 0
    local holder=''
    command -v ss >/dev/null && holder="$(ss -ltnpH "sport = :$1" 2>/dev/null | grep -o '"[^"]*",pid=[0-9]*' | head -n1 \
        | tr -d '"' | sed 's/,pid=/, process /')"
    fail "Port $1 ($2) is in use${holder:+ by $holder}. Stop that program, or choose another: $3"
}

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

apt_install() {
    as_root apt-get update -qq
    # A package that starts its own service would take ports that are not ours to take.
    as_root env DEBIAN_FRONTEND=noninteractive RUNLEVEL=1 apt-get install -y -qq --no-install-recommends "$@"
}

install_system() {
    local missing=() package
    local wanted=(mariadb-server php8.2-cli php8.2-fpm php8.2-mysql php8.2-curl php8.2-zip php8.2-bcmath php8.2-intl
        php8.2-mbstring php8.2-xml php8.2-imap nginx-light curl ca-certificates unzip iproute2 "$@")
    for package in "${wanted[@]}"; do
        dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' && continue
        # nginx-light is one of several packages that bring the same program.
        [ "$package" = nginx-light ] && [ -x /usr/sbin/nginx ] && continue
        missing+=("$package")
    done
    command -v composer >/dev/null || missing+=(composer)
    [ ${#missing[@]} = 0 ] || step "Installing ${missing[*]}" apt_install "${missing[@]}"
    if ! node_is_new_enough && [ -x "$ROOT/.runtime/node/node_modules/node/bin/node" ]; then
        PATH="$ROOT/.runtime/node/node_modules/node/bin:$PATH"
    fi
    if ! node_is_new_enough; then
        command -v npm >/dev/null || step 'Installing npm' apt_install npm
        step 'Installing Node 22' npm install --no-save --prefix "$ROOT/.runtime/node" node@22
        PATH="$ROOT/.runtime/node/node_modules/node/bin:$PATH"
    fi
}

# Vite 8 wants 20.19 or later; Debian 12 itself has 18.
node_is_new_enough() {
    command -v node >/dev/null || return 1
    node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)'
}

# The committed lock has no addresses (docs/decisions/composer-lock.md), so a local twin is resolved to the same versions.
install_php() { # [--no-dev]
    if ! cmp -s composer.json composer.local.json || ! php bin/lib/lock.php same composer.lock composer.local.lock; then
        cp composer.json composer.local.json
        rm -f composer.local.lock
        # shellcheck disable=SC2046
        COMPOSER=composer.local.json composer update --no-install --no-progress $(php bin/lib/lock.php pins composer.lock)
        php bin/lib/lock.php same composer.lock composer.local.lock \
            || { echo 'The registry serves other files than composer.lock names.'; return 1; }
    fi
    COMPOSER=composer.local.json composer install --no-progress "$@"
    # Without what tests need it is not whole for bin/test.
    if [ $# = 0 ]; then cp composer.local.lock vendor/.installed.lock; else rm -f vendor/.installed.lock; fi
}

install_packages() {
    install_php_packages
    install_js_packages
}

install_php_packages() {
    if [ ! -f vendor/autoload.php ] || ! cmp -s composer.json composer.local.json ||
        ! php bin/lib/lock.php same composer.lock vendor/.installed.lock; then
        step 'Installing PHP packages' install_php
    fi
    mkdir -p storage/logs storage/app storage/framework/{cache,sessions,views} bootstrap/cache
}

install_js_packages() {
    if [ ! -f node_modules/.installed.lock ] || ! cmp -s package-lock.json node_modules/.installed.lock; then
        # Not "npm ci": it refuses a lock without the builds for other systems, which some registries do not carry.
        step 'Installing JavaScript packages' npm install --no-save --no-audit --no-fund
        cp package-lock.json node_modules/.installed.lock
    fi
}

# The types of the screens are made from what is described, so they are never older than that.
make_client() {
    local client=resources/js/api/rule.d.ts
    if [ ! -f "$client" ] || [ -n "$(find docs/openapi.json docs/schema bin/lib/api-types.mjs -newer "$client" -print -quit)" ]; then
        step 'Making the API client' npm run --silent api
    fi
}

# Builds the front end when a source is newer than the last build.
build_front() {
    local stamp=public/build/.built
    make_client
    if [ ! -f "$stamp" ] || [ "$(words_of_screens)" != "$(cat "$stamp")" ] ||
        [ -n "$(find resources package-lock.json vite.config.ts svelte.config.js wuchale.config.js -newer "$stamp" -print -quit)" ]; then
        step 'Building the screens' npm run --silent build
        words_of_screens >"$stamp"
    fi
}

# The message files are written anew whenever they are read, so that their time tells nothing.
words_of_screens() { find lang/screens -maxdepth 1 -name '*.po' ! -name en.po -print0 | sort -z | xargs -0 cat bin/lib/words.mjs | cksum; }

# instance NAME PORT: names the folders and ports of one running copy; the database listens on PORT + 1.
instance() {
    NAME="$1" PORT="$2" DB_PORT_NR=$(($2 + 1))
    HERE="$ROOT/.runtime/$NAME"
    # A socket's path is limited to 107 bytes, so it cannot live below a project folder of any depth.
    SOCKETS="${TMPDIR:-/tmp}/vivid-ledger-$(printf '%s' "$ROOT/$NAME" | cksum | cut -d' ' -f1)"
    mkdir -p "$HERE" "$SOCKETS"
    CHILDREN=() NAMES=() COMMANDS=()
    [ -f "$HERE/key" ] || printf 'base64:%s' "$(head -c 32 /dev/urandom | base64)" >"$HERE/key"
    export APP_KEY APP_URL="http://127.0.0.1:$PORT" DB_SOCKET="$SOCKETS/db.sock" DB_DATABASE="${4:-vivid_ledger}" APP_ENV="${3:-local}"
    APP_KEY="$(cat "$HERE/key")"
    export MAIL_ROOM_PORT=$(($2 + 2)) BACK_OFFICE_PORT=$(($2 + 3))
}

# Starts one program of ours in the background and remembers its id, so that only our own programs are ever stopped.
launch() {
    local name="$1"; shift
    setsid "$@" >>"$HERE/$name.log" 2>&1 </dev/null &
    CHILDREN+=($!)
    NAMES+=("$name")
    COMMANDS+=("$(printf '%q ' "$@")")
    disown
}

# Starts again what has ended, and says so. A program that ends five times within a minute is given up, and everything with it.
watch_children() {
    local -A ended=()
    local i now recent one
    while sleep 1; do
        for i in "${!CHILDREN[@]}"; do
            kill -0 "${CHILDREN[i]}" 2>/dev/null && continue
            # What ends because the database is away is started once that is back; it is not its own fault.
            [ "${NAMES[i]}" = mariadb ] || database_answers || continue
            now=$SECONDS recent=''
            for one in ${ended[${NAMES[i]}]:-}; do (( now - one < 60 )) && recent+=" $one"; done
            ended[${NAMES[i]}]="$recent $now"
            [ "$(wc -w <<<"${ended[${NAMES[i]}]}")" -lt 5 ] || fail "${NAMES[i]} ends again and again; its log is $HERE/${NAMES[i]}.log."
            printf '  %s had ended; it is started again. Its log is %s.\n' "${NAMES[i]}" "$HERE/${NAMES[i]}.log" || true
            eval "setsid ${COMMANDS[i]}" >>"$HERE/${NAMES[i]}.log" 2>&1 </dev/null &
            CHILDREN[i]=$!
            disown
        done
    done
}

# What works besides the web: what falls due, sweeps, turns of the clock, queues, and the clock.
launch_workers() {
    local one
    for one in lines sweep turn notices ${MAIL_IMAP:+fetch}; do launch "worker-$one" php artisan ledger:work "$one"; done
    for one in letters calls proofs runs; do
        launch "queue-$one" php artisan queue:work --queue="$one" --sleep=0.5 --tries=5 --backoff=5 --timeout=150 --quiet
    done
    launch clock php artisan ledger:clock
}

database_answers() { mariadb-admin --no-defaults --socket="$DB_SOCKET" --user=root ping >/dev/null 2>&1; }

# Everything at once, and the database last: what ends may still have something to write.
stop_all() {
    local i pid
    for i in "${!CHILDREN[@]}"; do [ "${NAMES[i]}" = mariadb ] || kill -TERM -- "-${CHILDREN[i]}" 2>/dev/null || true; done
    for ((i = ${#CHILDREN[@]} - 1; i >= 0; i--)); do
        pid=${CHILDREN[i]}
        [ "${NAMES[i]}" != mariadb ] || kill -TERM -- "-$pid" 2>/dev/null || true
        for _ in $(seq 100); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
        kill -KILL -- "-$pid" 2>/dev/null || true
    done
    CHILDREN=() NAMES=() COMMANDS=()
}

# start_database [further options of mariadbd]
start_database() {
    if [ ! -d "$HERE/db/mysql" ]; then
        rm -rf "$HERE/db"
        step 'Making a database folder' mariadb-install-db --no-defaults --user="$ME" --datadir="$HERE/db" \
            --auth-root-authentication-method=normal --skip-test-db
    fi
    # A folder of its own: a server that starts clears away what looks like another one’s left-overs.
    mkdir -p "$HERE/db-tmp"
    launch mariadb mariadbd --no-defaults --user="$ME" --datadir="$HERE/db" --tmpdir="$HERE/db-tmp" --socket="$DB_SOCKET" \
        --bind-address=127.0.0.1 --port="$DB_PORT_NR" --pid-file="$SOCKETS/db.pid" --skip-log-bin --skip-name-resolve \
        --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci --innodb-buffer-pool-size=512M \
        --innodb-log-file-size=256M --max-connections=100 --skip-networking=0 --local-infile=0 "$@"
    local database=${CHILDREN[-1]}
    for _ in $(seq 300); do
        database_answers && break
        kill -0 "$database" 2>/dev/null || { tail -n 20 "$HERE/mariadb.log" >&2; fail 'MariaDB did not start.'; }
        sleep 0.1
    done
    mariadb --no-defaults --socket="$DB_SOCKET" --user=root -e "CREATE DATABASE IF NOT EXISTS \`$DB_DATABASE\`"
}

# PHP on nginx with php-fpm: this project's own configuration, on loopback, touching no system service.
start_web() {
    mkdir -p "$HERE/nginx"
    local file_bytes name
    file_bytes="$(php -r 'echo (require "config/limits.php")["file_bytes"];')"
    # A file comes with a little around it.
    for name in php-fpm.conf nginx.conf; do
        sed -e "s|@HERE@|$HERE|g; s|@ROOT@|$ROOT|g; s|@SOCKETS@|$SOCKETS|g; s|@PORT@|$PORT|g; s|@ME@|$ME|g" \
            -e "s|@FILE_BYTES@|$file_bytes|g; s|@BODY_BYTES@|$((file_bytes + 200000))|g" "bin/lib/$name" >"$HERE/$name"
    done
    local root_flag=()
    if [ "$(id -u)" = 0 ]; then root_flag=(--allow-to-run-as-root); else sed -i '/^user /d' "$HERE/nginx.conf"; fi
    # What the framework reads again at each request is put together once, for this copy alone: tests beside it have their own settings.
    local kept=(APP_CONFIG_CACHE="$HERE/kept-config.php" APP_ROUTES_CACHE="$HERE/kept-routes.php" APP_EVENTS_CACHE="$HERE/kept-events.php")
    rm -f "$HERE"/kept-*.php
    for name in config route event; do env "${kept[@]}" php artisan "$name:cache" --quiet; done
    launch php-fpm env "${kept[@]}" php-fpm8.2 --nodaemonize "${root_flag[@]}" --fpm-config "$HERE/php-fpm.conf"
    launch nginx /usr/sbin/nginx -p "$HERE" -c "$HERE/nginx.conf" -e "$HERE/nginx-error.log"
    for _ in $(seq 150); do
        # That the clock of a run that was cut off has stopped is no reason not to start it again.
        curl -sS "$APP_URL/up" 2>/dev/null | grep -q '"up"' && return 0
        sleep 0.1
    done
    tail -n 15 "$HERE/nginx.log" "$HERE/php-fpm.log" "$HERE/nginx-error.log" >&2 || true
    fail 'The web server did not answer.'
}
