<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Rules\RuleStore;
use App\Store\SignOffs\SignOffService;
use App\Store\Types\SchemaStore;
use App\Work\Rules\RulePublisher;
use App\Work\Timing\LineWorker;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Database\Connection;
use Illuminate\Http\Request;
use VividLedger\SignOff\Answer;

/** 10,000 sign-offs that wait for one person: their inbox, a decision with what follows it, and five hundred decided at once. */
final class SignOffBench
{
    private const OPEN = 10_000;

    private const AT_ONCE = 500;

    private const ROUNDS = 9;

    private const A_ROUND = 20;

    private static int $customer = 0;

    public static function run(): void
    {
        $db = app(Connection::class);
        self::rule();
        $clea = Person::query()->where('handle', 'clea.harrow')->firstOrFail();
        self::$customer = app(SaveRecord::class)->create(
            app(SchemaStore::class)->schema()->types['customer'], ['name' => 'Bench'], new Actor($clea->id),
        )->record->id;
        self::ask(1);
        self::fill($db);
        self::inbox($db, $clea);
        self::decision($db, $clea->id);
        self::atOnce($db, $clea);
    }

    private static function inbox(Connection $db, Person $clea): void
    {
        $kernel = app(Kernel::class);
        $ask = static function () use ($kernel, $clea): void {
            auth('sanctum')->setUser($clea);
            $request = Request::create('/api/sign-offs?limit=100', 'GET', server: ['HTTP_ACCEPT' => 'application/json']);
            $answer = $kernel->handle($request);
            if ($answer->getStatusCode() !== 200) {
                throw new \LogicException((string) $answer->getContent());
            }
        };
        $list = $db->getPdo()->prepare(
            'SELECT s.*, q.subject FROM sign_offs s JOIN sign_off_seats e ON e.sign_off_id = s.id '
                .'JOIN records_quote q ON q.id = s.record_id '."WHERE e.person_id = ? AND e.state = 'waiting' ORDER BY s.id LIMIT 100",
        );
        $count = $db->getPdo()->prepare("SELECT COUNT(*) FROM sign_off_seats WHERE person_id = ? AND state = 'waiting'");
        Timing::pair(
            'sign-offs: the inbox of somebody for whom 10,000 wait, over the API (at most 100 ms)',
            'the SQL written by hand',
            3,
            $ask,
            static function () use ($list, $count, $clea): void {
                foreach ([$list, $count] as $statement) {
                    $statement->execute([$clea->id]);
                    $statement->fetchAll(\PDO::FETCH_OBJ);
                }
            },
            100,
        );
    }

    /** A decision writes its entry, the end of the sign-off, and what three lines do that waited for it. */
    private static function decision(Connection $db, int $clea): void
    {
        $desk = app(SignOffService::class);
        $worker = app(LineWorker::class);
        self::ask(self::ROUNDS * self::A_ROUND + 1);
        $ids = $db->table('sign_offs')->where('id', '>', self::OPEN + 1)->orderBy('id')->pluck('id')->all();
        $decide = static function (int $times) use (&$ids, $desk, $worker, $clea): void {
            for ($count = 0; $count < $times; $count++) {
                $desk->answer((int) array_shift($ids), $clea, Answer::Yes, 'Fine');
            }
            while ($worker->work(200) > 0);
        };
        $again = new RowsAgain($db);
        $again->watch(static fn () => $decide(1));
        Figures::note('rows a decision writes: '.$again->said());
        $pdo = $db->getPdo();
        $update = [
            $pdo->prepare("UPDATE sign_offs SET status = 'agreed', ended_at = NOW(), wakes_at = NULL, queue = '[]' WHERE id = 1"),
            $pdo->prepare("UPDATE sign_off_seats SET state = 'yes', at = NOW(), comment = 'Fine' WHERE sign_off_id = 1"),
            $pdo->prepare("UPDATE records_quote SET stage = 'sent', version = version + 1 WHERE id = 1"),
            $pdo->prepare("UPDATE scheduled_lines SET status = 'inked', due_at = NOW() WHERE run_id = 1"),
            $pdo->prepare('UPDATE rule_runs SET status = \'over\' WHERE id = 1'),
        ];
        $lock = $pdo->prepare('SELECT * FROM records_quote WHERE id = 1 FOR UPDATE');
        $floor = static function () use ($pdo, $again, $update, $lock): void {
            for ($count = 0; $count < self::A_ROUND; $count++) {
                $pdo->beginTransaction();
                $lock->execute();
                $lock->fetchAll();
                $again->write($pdo);
                array_walk($update, static fn (\PDOStatement $one): bool => $one->execute());
                $pdo->commit();
            }
        };
        Timing::pair(
            'sign-offs: twenty decisions, and the sixty lines that follow them',
            'plain PDO, same rows, a transaction for each',
            1,
            static fn () => $decide(self::A_ROUND),
            $floor,
            2.5,
        );
    }

    private static function atOnce(Connection $db, Person $clea): void
    {
        self::ask(self::AT_ONCE);
        $ids = $db->table('sign_offs')->where('status', 'waiting')->latest('id')->limit(self::AT_ONCE)->pluck('id')->all();
        $kernel = app(Kernel::class);
        $from = hrtime(true);
        // As the screen does, so many with one request, so that it can tell how far it is.
        foreach (array_chunk($ids, 25) as $chunk) {
            auth('sanctum')->setUser($clea);
            $answer = $kernel->handle(Request::create('/api/sign-offs/answers', 'POST', server: [
                'HTTP_ACCEPT' => 'application/json', 'CONTENT_TYPE' => 'application/json',
            ], content: (string) json_encode(['ids' => $chunk, 'answer' => 'yes'])));
            if ($answer->getStatusCode() !== 200) {
                throw new \LogicException((string) $answer->getContent());
            }
        }
        $took = (hrtime(true) - $from) / 1e9;
        $pdo = $db->getPdo();
        $again = new RowsAgain($db);
        self::ask(1);
        $last = (int) $db->table('sign_offs')->max('id');
        $again->watch(static fn () => app(SignOffService::class)->answer($last, $clea->id, Answer::Yes, ''));
        $from = hrtime(true);
        for ($count = 0; $count < self::AT_ONCE; $count++) {
            $pdo->beginTransaction();
            $again->write($pdo);
            $pdo->commit();
        }
        Figures::pair(
            'sign-offs: 500 decided at once (at most 5 s)', $took, 'plain PDO, same new rows', (hrtime(true) - $from) / 1e9, 's', 5,
        );
    }

    private static function rule(): void
    {
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        $once = static fn (array $line): array => $line + ['at' => [
            'kind' => 'signed_off', 'line' => 'asked', 'status' => 'agreed', 'amount' => 0, 'unit' => 'day',
        ]];
        $rule = app(RuleStore::class)->draft([
            'name' => 'Bench', 'on' => 'quote', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'sign_off', 'key' => 'asked', 'why' => 'Bench', 'steps' => [[
                    'who' => ['kind' => 'people', 'people' => [['kind' => 'named', 'handle' => 'clea.harrow']]],
                    'within' => ['amount' => 3, 'unit' => 'working_day'],
                ]]],
                $once(['kind' => 'set_fields', 'set' => [['field' => 'stage', 'to' => ['kind' => 'value', 'value' => 'sent']]]]),
                $once(['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Send {number}', 'due' => [
                    'amount' => 1, 'unit' => 'day',
                ]]),
                $once(['kind' => 'comment', 'text' => 'Signed off by {sign_off.agreed}']),
            ],
        ], $ines);
        app(RulePublisher::class)->publish($rule, 1, $ines);
    }

    private static function ask(int $times): void
    {
        $jonas = Person::query()->where('handle', 'jonas.pike')->firstOrFail()->id;
        $type = app(SchemaStore::class)->schema()->types['quote'];
        for ($count = 0; $count < $times; $count++) {
            app(SaveRecord::class)->create($type, [
                'subject' => 'Bench', 'customer' => self::$customer, 'stage' => 'draft', 'owner' => $jonas,
            ], new Actor($jonas));
        }
    }

    /** As many like the first. */
    private static function fill(Connection $db): void
    {
        foreach (['sign_offs' => ['id'], 'sign_off_seats' => ['id', 'sign_off_id'], 'records_quote' => ['id']] as $table => $counted) {
            $columns = array_map(
                static fn (object $column): string => (string) $column->Field,
                $db->select("SHOW COLUMNS FROM {$table} WHERE Extra NOT LIKE '%GENERATED%'"),
            );
            $counted = $table === 'sign_offs' ? ['id', 'record_id'] : $counted;
            $values = array_map(
                static fn (string $column): string => in_array($column, $counted, true) ? "t.`{$column}` + s.seq" : "t.`{$column}`",
                $columns,
            );
            $db->statement("INSERT INTO {$table} (`".implode('`, `', $columns).'`) SELECT '.implode(', ', $values)
                ." FROM {$table} t JOIN seq_1_to_".self::OPEN." s WHERE t.id = (SELECT MIN(id) FROM {$table})");
        }
        $db->statement('ALTER SEQUENCE records_quote_ids RESTART '.(self::OPEN + 100));
    }
}
