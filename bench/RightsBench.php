<?php

declare(strict_types=1);

namespace Bench;

use App\Models\Access\StoredRole;
use App\Models\People\Person;
use App\Store\Lists\RecordList;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Database\Connection;
use Illuminate\Http\Request;
use VividLedger\Listing\Sort;

/** What rights cost somebody who sees a tenth of a million records: in a list, and in a save. */
final class RightsBench
{
    private const RECORDS = 1_000_000;

    private const TIMES = 9;

    public static function run(): void
    {
        $db = app(Connection::class);
        $people = Person::query()->where('team', 'like', 'Service %')->orderBy('id')->limit(10)->get();
        $owners = implode(', ', $people->pluck('id')->all());
        $db->statement('INSERT INTO records_customer (id, version, name, created_at, updated_at) VALUES (1, 1, "Bench", NOW(), NOW())');
        $db->statement(
            'INSERT INTO records_ticket (id, version, subject, customer, priority, status, owner, due, created_at, created_by, updated_at) '
                ."SELECT seq, 1, CONCAT('Ticket ', seq), 1, ELT(1 + seq % 4, 'low', 'normal', 'high', 'urgent'), ELT(1 + seq % 3, 'open', "
                ."'waiting', 'closed'), ELT(1 + (seq DIV 3) % 10, {$owners}), '2026-11-24' + INTERVAL seq % 400 DAY, NOW(), 6, NOW() "
                .'FROM seq_1_to_'
                .self::RECORDS,
        );
        $db->statement('SELECT SETVAL(`records_ticket_ids`, '.self::RECORDS.')');
        $db->statement('ANALYZE TABLE records_ticket');
        $one = $people[0];
        $narrow = ['*' => ['read' => 'own', 'create' => 'own', 'change' => 'own', 'run' => 'own']];
        StoredRole::query()
            ->create(['name' => 'narrow', 'position' => 9, 'version' => 1, 'file' => ['label' => 'Narrow', 'reaches' => $narrow]]);
        $one->update(['role' => 'narrow']);
        $one = Person::query()->findOrFail($one->id);
        auth()->guard('web')->setUser($one);

        $type = app(SchemaStore::class)->schema()->types['ticket'];
        $list = app(RecordList::class);
        $as = static fn (Person $who) => auth()->guard('web')->setUser($who);
        $all = Person::query()->where('role', 'administrator')->firstOrFail();
        foreach ([[null, 'the newest first'], ['due', 'by their date'], ['cost', 'by what no index keeps']] as [$sort, $what]) {
            $page = static fn (Person $who): \Closure => static function () use ($as, $who, $list, $type, $sort): void {
                $as($who);
                $list->page($type, null, '', $sort === null ? [] : [Sort::byField($type->fields[$sort])], 1, 25, false);
            };
            Timing::pair("rights: a page of a tenth of a million, {$what}", 'the same list without rights', self::TIMES, $page($one),
                $page($all),
                1.15);
        }
        $count = static fn (Person $who): \Closure => static function () use ($as, $who, $list, $type): void {
            $as($who);
            $list->page($type, null, '', [], 2, 25);
        };
        Timing::pair('rights: the same with how many that is', 'the same list without rights', self::TIMES, $count($one), $count($all),
            1.15);
        $as($one);
        self::save($one, Person::query()->where('role', 'administrator')->firstOrFail(), $db);
    }

    /** The same save, asked by somebody whom the gate looks at and by somebody who may everything. */
    private static function save(Person $narrow, Person $wide, Connection $db): void
    {
        $kernel = app(Kernel::class);
        $ids = $db->table('records_ticket')->where('owner', $narrow->id)->limit(60)->pluck('id')->all();
        $call = static function (Person $who) use ($kernel, $db, &$ids): void {
            $id = array_pop($ids);
            array_unshift($ids, $id);
            auth()->guard('sanctum')->setUser(Person::query()->findOrFail($who->id));
            $version = $db->table('records_ticket')->where('id', $id)->value('version');
            $request = Request::create("/api/records/ticket/{$id}", 'PATCH', [], [], [], [
                'HTTP_ACCEPT' => 'application/json', 'CONTENT_TYPE' => 'application/json',
            ], (string) json_encode(['version' => $version, 'values' => ['subject' => 'Nr '.bin2hex(random_bytes(4))]]));
            $answer = $kernel->handle($request);
            if ($answer->getStatusCode() !== 200) {
                throw new \LogicException((string) $answer->getContent());
            }
        };
        Timing::pair('rights: a save of one’s own, whole request', 'the same by an administrator', 40,
            static fn () => $call($narrow), static fn () => $call($wide), 1.1);
    }
}
