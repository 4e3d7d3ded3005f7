#!/usr/bin/env bash
# Requests a second of a served mapping and of a handler written by hand on the same server, loaded over
# loopback in turn by wrk (a package of most systems), each after four times as long to get warm:
# benchmarks/serve.sh FOLDER SECONDS PAIRS
set -euo pipefail
folder=$1 seconds=$2 pairs=$3 port=8765
here=$(cd "$(dirname "$0")" && pwd)
classes=$here/target/morphema-benchmarks-0.1.0-SNAPSHOT.jar:$(cat "$here/target/classpath.txt")
mkdir -p "$folder"
cat >"$folder/post.lua" <<LUA
wrk.method = "POST"
wrk.headers["Content-Type"] = "application/json"
wrk.body = io.open("$folder/message.json"):read("*a")
LUA
load() {
  wrk -t1 -c8 -d"$2s" -s "$folder/post.lua" "http://127.0.0.1:$port/call" |
    awk -v what="$1" '/Requests\/sec/ { rate = $2 } /Non-2xx|Socket errors/ { bad = $0 } END { print what, rate, bad }'
}
measure() {
  java -XX:+UseSerialGC -XX:FreqInlineSize=64 -cp "$classes" dev.morphema.benchmarks.Main serve "$1" "$port" "$folder" >/dev/null 2>&1 &
  local server=$!
  until (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; do kill -0 "$server"; done
  load warm-up "$((4 * seconds))" >/dev/null
  load "$1" "$seconds"
  kill "$server"
  wait "$server" || true
}
for ((i = 0; i < pairs; i++)); do
  if ((i % 2)); then measure hand; measure morphema; else measure morphema; measure hand; fi
done | awk '
  { print; rate[$1] = $2; fflush() }
  NR % 2 == 0 { ratio[++n] = rate["morphema"] / rate["hand"] }
  END {
    for (i = 2; i <= n; i++) for (j = i; j > 1 && ratio[j - 1] > ratio[j]; j--) { t = ratio[j]; ratio[j] = ratio[j - 1]; ratio[j - 1] = t }
    printf "morphema to hand: median of the pairs %.2f, from %.2f to %.2f\n", (ratio[int((n + 1) / 2)] + ratio[int(n / 2) + 1]) / 2, ratio[1], ratio[n]
  }'
