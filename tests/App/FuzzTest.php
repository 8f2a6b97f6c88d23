<?php

declare(strict_types=1);

namespace Tests\App;

use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Tests\App\Support\AppTestCase;

/** Every operation of the API, given what nobody should send: it refuses, and never fails. Seeded, so that it can be done again. */
final class FuzzTest extends AppTestCase
{
    private const TRIES = 14;

    private const ODD = [
        null, true, false, 0, -1, 1.5, '', ' ', 'x', '0', '-0', '1e9', '9223372036854775808', '99999999999999999999', '10000-01-01',
        '0000-00-00', 'tomorrow', '2026-11-24', '2026-11-24T09:40:00Z',
        "a\0b", "\xC3\x28", '🌿', '../../etc/passwd', "' OR 1=1 --", '%', '{', '[]', '{}', [], [[]], ['a'], [1, '2'], ['a' => 'b'],
        ['kind' => 'all', 'of' => []], ['kind' => ['x']], 'Europe/Berlin', "Europe\0/Berlin", 'person',
    ];

    /** Tables are made outside of any transaction; TypeTest sends odd things there, in a database of its own. */
    private const MAKES_TABLES = ['/api/types' => ['post'], '/api/types/{type}/fields' => ['post']];

    private Randomizer $random;

    /** @var array<string, mixed> */
    private array $good;

    public function test_nothing_that_is_sent_makes_it_fail(): void
    {
        $rule = $this->inForce($this->demoFile('010-urgent-ticket'));
        $saved = $this->ticket(['priority' => 'urgent']);
        $id = $saved['record']['id'];
        $this->good = [
            'type' => 'ticket', 'on' => 'ticket', 'recordType' => 'ticket', 'id' => $id, 'number' => $saved['entry'], 'field' => 'status',
            'rule' => $rule, 'rules' => [$rule], 'version' => 1, 'file' => $this->demoFile('010-urgent-ticket'),
            'records' => [$id], 'record' => ['id' => $id], 'entries' => [$saved['entry']], 'entry' => $saved['entry'], 'values' => [
                'subject' => 'Odd', 'status' => 'open', 'priority' => 'low', 'customer' => $saved['record']['values']['customer'],
            ],
            'ids' => DB::table('tasks')->pluck('id')->all(), 'name' => 'Odd', 'text' => 'Odd', 'subject' => 'Odd', 'body' => '<p>Odd</p>',
            'filter' => [
                'kind' => 'is', 'field' => 'status', 'value' => 'open',
            ],
            'at' => '/when', 'line' => [
                'to' => [['kind' => 'owner']], 'subject' => 'S', 'body' => '<p>B</p>',
            ], 'date' => '2026-11-24', 'rungs' => [
                ['after' => ['amount' => 1, 'unit' => 'day'], 'to' => ['kind' => 'owner'], 'do' => ['tell']],
            ],
            'timeZone' => 'Europe/Berlin', 'hours' => ['1' => [['08:00', '16:00']]], 'holidays' => [], 'company' => false, 'teams' => [],
            'people' => [1], 'status' => 'paused', 'existing' => 'leave', 'from' => '2026-11-01T00:00:00Z',
            'until' => '2026-11-24T00:00:00Z',
        ];
        // What another system does not answer is no failing of ours; CallTest has it really there, and away.
        config(['ledger.back_office.url' => '']);
        $document = json_decode((string) file_get_contents(base_path('docs/openapi.json')), true, 512, JSON_THROW_ON_ERROR);
        $tried = 0;
        foreach ($document['paths'] as $path => $operations) {
            foreach (array_diff_key($operations, array_flip(self::MAKES_TABLES[$path] ?? [])) as $method => $operation) {
                // Each has chances of its own: what is tried of one is not another for a new one.
                $this->random = new Randomizer(new Mt19937(crc32("{$method} {$path}") + (int) getenv('FUZZ_SEED')));
                for ($try = 0; $try < self::TRIES; $try++) {
                    $this->try($path, strtoupper($method), $operation);
                    $tried++;
                }
            }
        }
        self::assertGreaterThan(100 * self::TRIES, $tried);
    }

    /** Values of every field of every type, by themselves and in rules, filters and rehearsals. */
    public function test_no_value_of_a_field_makes_it_fail(): void
    {
        $this->random = new Randomizer(new Mt19937(11));
        $this->good = [];
        $ticket = $this->ticket()['record'];
        $byHand = $this->inForce([
            'name' => 'By hand', 'on' => 'ticket', 'when' => ['kind' => 'by_hand'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'comment', 'text' => 'Odd']],
        ]);
        foreach ($this->as('ines.okafor', 'GET', 'schema')->json('types.0.fields') as $field) {
            $type = $this->as('ines.okafor', 'GET', 'schema')->json('types.0.name');
            foreach (self::ODD as $odd) {
                $this->send('POST', "records/{$type}", ['values' => [$field['name'] => $odd]]);
                $this->send('POST', "records/{$type}/filter", ['filter' => ['kind' => 'is', 'field' => $field['name'], 'value' => $odd]]);
                if (is_string($odd) && mb_check_encoding($odd, 'UTF-8')) {
                    $this->send(
                        'GET',
                        "records/{$type}?".http_build_query([
                            'sort' => $odd, 'filter' => json_encode(['kind' => 'over', 'field' => $field['name'], 'value' => $odd]),
                        ]),
                        [],
                    );
                }
            }
        }
        foreach (self::ODD as $odd) {
            $this->send(
                'POST',
                'rehearse',
                [
                    'file' => $this->demoFile('010-urgent-ticket'), 'record' => ['values' => ['priority' => $odd]], 'opening' => $odd,
                    'whatIfs' => [$odd],
                ],
            );
            $this->send(
                'POST',
                'rehearse',
                [
                    'file' => $this->demoFile('010-urgent-ticket'), 'record' => ['id' => $odd],
                    'opening' => ['kind' => $odd, 'at' => $odd, 'values' => $odd],
                    'whatIfs' => [['kind' => 'word', 'event' => $odd, 'at' => $odd, 'text' => $odd]],
                ],
            );
            $this->send('POST', "rules/{$byHand}/run", ['recordType' => 'ticket', 'records' => [$odd]]);
            foreach (['owner', 'priority', 'due', 'hours', 'customer', 'tags'] as $name) {
                $this->send(
                    'POST',
                    'rehearse',
                    [
                        'file' => $this->demoFile('010-urgent-ticket'), 'record' => ['values' => [$name => $odd]],
                        'opening' => ['kind' => 'changed', 'values' => [$name => $odd]],
                    ],
                );
                $this->send('PATCH', "records/ticket/{$ticket['id']}", ['version' => 1, 'values' => [$name => $odd]]);
            }
        }
        self::assertSame(1, (int) DB::table('records_ticket')->where('id', $ticket['id'])->count());
    }

    /** @param  array<string, mixed>  $operation as OpenAPI describes it */
    private function try(string $path, string $method, array $operation): void
    {
        $address = (string) preg_replace_callback(
            '/\{(\w+)\}/',
            fn (array $name): string => rawurlencode($this->text(
                $this->random->getInt(1, 4) === 1 ? $this->odd() : ($this->good[$name[1]] ?? 1),
            )),
            $path,
        );
        $query = [];
        foreach ($operation['parameters'] ?? [] as $parameter) {
            if ($parameter['in'] === 'query' && $this->random->getInt(1, 3) > 1) {
                $query[$parameter['name']] = $this->random->getInt(1, 3) === 1 ? ($this->good[$parameter['name']] ?? 1) : $this->odd();
            }
        }
        $body = [];
        foreach ($operation['requestBody']['content']['application/json']['schema']['properties'] ?? [] as $name => $schema) {
            if ($this->random->getInt(1, 8) > 1) {
                $body[$name] = match ($this->random->getInt(1, 3)) {
                    1 => $this->odd(),
                    2 => $this->bent($this->good[$name] ?? $schema['enum'][0] ?? 1),
                    default => $this->good[$name] ?? $schema['enum'][0] ?? 1,
                };
            }
        }
        $this->send($method, substr($address, 5).($query === [] ? '' : '?'.http_build_query($query)), $body);
    }

    private function send(string $method, string $address, mixed $body): void
    {
        DB::beginTransaction();
        $json = json_encode($body, JSON_INVALID_UTF8_IGNORE | JSON_PARTIAL_OUTPUT_ON_ERROR);
        $answer = $this->actingAs($this->person('ines.okafor'), 'sanctum')
            ->call(
                $method,
                "/api/{$address}",
                [],
                [],
                [],
                ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json'],
                (string) $json,
            );
        $this->judge($answer, "{$method} {$address} {$json}");
        DB::rollBack();
        $this->forgetEverything();
    }

    private function judge(TestResponse $answer, string $what): void
    {
        $status = $answer->getStatusCode();
        if ($answer->baseResponse instanceof StreamedResponse) {
            $answer->streamedContent();

            return;
        }
        $thrown = $answer->exception;
        self::assertLessThan(
            500,
            $status,
            $what.($thrown === null ? '' : "\n".$thrown::class.": {$thrown->getMessage()} {$thrown->getFile()}:{$thrown->getLine()}"),
        );
        if ($status >= 400) {
            self::assertSame('application/problem+json', $answer->headers->get('Content-Type'), $what);
            $problem = $answer->json();
            self::assertSame($status, $problem['status'], $what);
            self::assertNotSame('', $problem['title'], $what);
        }
    }

    /** A value that is right, but for one place in it. */
    private function bent(mixed $value, int $depth = 0): mixed
    {
        if (! is_array($value) || $value === [] || $depth > 6) {
            return $this->odd();
        }
        $key = array_keys($value)[$this->random->getInt(0, count($value) - 1)];

        return [$key => $this->random->getInt(1, 3) === 1 ? $this->odd() : $this->bent($value[$key], $depth + 1)] + $value;
    }

    private function odd(): mixed
    {
        return self::ODD[$this->random->getInt(0, count(self::ODD) - 1)];
    }

    private function text(mixed $value): string
    {
        return is_scalar($value) ? (string) $value : (string) json_encode($value, JSON_INVALID_UTF8_IGNORE);
    }
}
