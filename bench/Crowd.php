<?php

declare(strict_types=1);

namespace Bench;

use Random\Engine\Mt19937;
use Random\Randomizer;

/** Many people before as many windows: each asks what a screen asks, waits a little as a person does, and goes on. */
final class Crowd
{
    private const PASSWORD = 'larkmoss';

    private Randomizer $random;

    private \CurlMultiHandle $multi;

    /** @var list<array{handle: \CurlHandle, queue: list<array{string, string, string, ?string}>, at: float, token: string}> */
    private array $people = [];

    /** @param  list<string>  $addresses  of the people, who sign in one after the other */
    public function __construct(private readonly string $url, array $addresses, private readonly int $tickets)
    {
        $this->random = new Randomizer(new Mt19937(17));
        $this->multi = curl_multi_init();
        foreach ($addresses as $address) {
            $this->people[] = $this->signedIn($address);
        }
    }

    /** @return array{times: list<float>, floor: list<float>, kinds: array<string, list<float>>, errors: list<string>} in milliseconds */
    public function click(int $seconds): array
    {
        $seen = ['times' => [], 'floor' => [], 'kinds' => [], 'errors' => []];
        $until = microtime(true) + $seconds;
        $open = [];
        foreach (array_keys($this->people) as $nth) {
            $this->people[$nth]['at'] = microtime(true) + $this->random->getInt(0, 1000) / 1000;
        }
        while (microtime(true) < $until || $open !== []) {
            foreach ($this->people as $nth => $person) {
                if (! isset($open[$nth]) && $person['at'] <= microtime(true) && microtime(true) < $until) {
                    $open[$nth] = $this->ask($nth);
                }
            }
            curl_multi_exec($this->multi, $running);
            curl_multi_select($this->multi, 0.005);
            while (($done = curl_multi_info_read($this->multi)) !== false) {
                foreach ($open as $nth => $kind) {
                    if ($this->people[$nth]['handle'] === $done['handle']) {
                        $this->answered($nth, $kind, $seen);
                        unset($open[$nth]);
                    }
                }
            }
        }

        return $seen;
    }

    /** @param  array{times: list<float>, floor: list<float>, kinds: array<string, list<float>>, errors: list<string>}  $seen */
    private function answered(int $nth, string $kind, array &$seen): void
    {
        $handle = $this->people[$nth]['handle'];
        $status = (int) curl_getinfo($handle, CURLINFO_RESPONSE_CODE);
        $time = 1000 * (float) curl_getinfo($handle, CURLINFO_TOTAL_TIME);
        if ($status < 200 || $status >= 300) {
            $seen['errors'][] = "{$kind}: {$status}";
        }
        if ($kind === 'nothing') {
            $seen['floor'][] = $time;
        } else {
            $seen['times'][] = $time;
            $seen['kinds'][$kind][] = $time;
        }
        curl_multi_remove_handle($this->multi, $handle);
        // What a screen asks for comes at once; then somebody reads it.
        $this->people[$nth]['at'] = microtime(true) + ($this->people[$nth]['queue'] === [] ? $this->random->getInt(800, 2400) / 1000 : 0);
    }

    /** @return string the kind of what is asked */
    private function ask(int $nth): string
    {
        if ($this->people[$nth]['queue'] === []) {
            $this->people[$nth]['queue'] = $this->screen();
        }
        [$kind, $method, $path, $body] = array_shift($this->people[$nth]['queue']);
        $this->prepare($this->people[$nth]['handle'], $this->people[$nth]['token'], $method, $path, $body);
        curl_multi_add_handle($this->multi, $this->people[$nth]['handle']);

        return $kind;
    }

    /** @return non-empty-list<array{string, string, string, ?string}> kind, method, path and body of all that one click asks for */
    private function screen(): array
    {
        $ticket = $this->random->getInt(1, $this->tickets);
        $one = "/api/records/ticket/{$ticket}";
        $word = ['ficus', 'palm', 'monstera', 'moss', 'lobby77'][$this->random->getInt(0, 4)];
        $status = ['open', 'waiting'][$this->random->getInt(0, 1)];
        $is = ['kind' => 'is', 'field' => 'status', 'value' => $status];
        $filter = rawurlencode((string) json_encode(['kind' => 'all', 'of' => [$is]]));
        $screens = [
            [['today', 'GET', '/api/today', null], ['notes', 'GET', '/api/notes', null], ['nothing', 'GET', '/up', null]],
            [['tasks', 'GET', '/api/tasks?limit=200', null]],
            [['list', 'GET', "/api/records/ticket?filter={$filter}&sort=-due&perPage=50", null]],
            [['list', 'GET', '/api/records/ticket?perPage=50&page='.$this->random->getInt(1, 40), null]],
            [['words in a list', 'GET', "/api/records/ticket?search={$word}&perPage=50", null], ['nothing', 'GET', '/up', null]],
            [
                ['record', 'GET', $one, null], ['account', 'GET', "{$one}/account", null], ['stages', 'GET', "{$one}/stages", null],
                ['stages ahead', 'GET', "{$one}/stages/ahead", null], ['sign-offs', 'GET', "{$one}/sign-offs", null],
            ],
            [['find', 'GET', "/api/find?text={$word}", null]],
            [['notices', 'GET', '/api/notices', null], ['nothing', 'GET', '/up', null]],
            [['comment', 'POST', "{$one}/comments", '{"text":"Looked at it."}']],
            [['new ticket', 'POST', '/api/records/ticket', (string) json_encode(['values' => [
                'subject' => "Another {$word}", 'customer' => $this->random->getInt(1, 400), 'priority' => 'normal', 'status' => 'open',
            ]])]],
        ];

        return $screens[$this->random->getInt(0, count($screens) - 1)];
    }

    /** @return array{handle: \CurlHandle, queue: list<array{string, string, string, ?string}>, at: float, token: string} */
    private function signedIn(string $address): array
    {
        $handle = curl_init();
        // A jar of cookies of its own.
        curl_setopt_array($handle, [CURLOPT_COOKIEFILE => '', CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT => 30]);
        $this->prepare($handle, '', 'GET', '/session/cookie', null);
        curl_exec($handle);
        $this->prepare($handle, self::token($handle), 'POST', '/api/session', (string) json_encode([
            'email' => $address, 'password' => self::PASSWORD,
        ]));
        curl_exec($handle);
        if (curl_getinfo($handle, CURLINFO_RESPONSE_CODE) >= 300) {
            throw new \LogicException("{$address} cannot sign in: ".curl_multi_getcontent($handle));
        }

        return ['handle' => $handle, 'queue' => [], 'at' => 0.0, 'token' => self::token($handle)];
    }

    private static function token(\CurlHandle $handle): string
    {
        foreach (curl_getinfo($handle, CURLINFO_COOKIELIST) as $cookie) {
            $parts = explode("\t", $cookie);
            if (($parts[5] ?? '') === 'XSRF-TOKEN') {
                return rawurldecode($parts[6]);
            }
        }

        return '';
    }

    private function prepare(\CurlHandle $handle, string $token, string $method, string $path, ?string $body): void
    {
        curl_setopt_array($handle, [
            CURLOPT_URL => $this->url.$path, CURLOPT_CUSTOMREQUEST => $method, CURLOPT_POSTFIELDS => $body ?? '',
            CURLOPT_HTTPHEADER => [
                'Accept: application/json', 'Content-Type: application/json', "Origin: {$this->url}", "X-XSRF-TOKEN: {$token}",
            ],
        ]);
    }
}
