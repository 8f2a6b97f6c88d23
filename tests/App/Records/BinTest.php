<?php

declare(strict_types=1);

namespace Tests\App\Records;

use Tests\App\Support\AppTestCase;

/** What was deleted lies in a bin, all of it, page by page, and comes back under its own number. */
final class BinTest extends AppTestCase
{
    public function test_all_that_was_deleted_is_there_page_by_page(): void
    {
        $deleted = [];
        for ($count = 1; $count <= 57; $count++) {
            $record = $this->created('customer', ['name' => "Gone {$count}"])['record'];
            $this->as('ines.okafor', 'DELETE', "records/customer/{$record['id']}?version={$record['version']}")->assertOk();
            $deleted[] = $record['id'];
        }
        $first = $this->as('ines.okafor', 'GET', 'records/customer/bin')->assertOk()->json();
        $second = $this->as('ines.okafor', 'GET', "records/customer/bin?before={$first['before']}")->assertOk()->json();
        self::assertSame([50, 7, null], [count($first['records']), count($second['records']), $second['before']]);
        self::assertSame(array_reverse($deleted), array_column([...$first['records'], ...$second['records']], 'id'), 'the latest first');
        $back = $second['records'][6];
        self::assertSame('Gone 1', $back['title']);
        $this->as('ines.okafor', 'POST', "records/customer/{$back['id']}/restore")->assertOk()
            ->assertJsonPath('record.number', $back['number']);
        $rest = $this->as('ines.okafor', 'GET', "records/customer/bin?before={$first['before']}")->json('records');
        self::assertCount(6, $rest, 'what is back lies there no more');
        $this->as('ines.okafor', 'GET', 'records/customer/bin?before=soon')->assertStatus(422);
    }
}
