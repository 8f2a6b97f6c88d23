<?php

declare(strict_types=1);

namespace Tests\App\Ledger;

use App\Models\Records\Comment;
use App\Models\Records\FieldChange;
use App\Store\Sql\Batch;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Rows of several tables that go in one round trip: all of them, or a failure that is told, whichever of the statements failed. */
final class TogetherTest extends AppTestCase
{
    public function test_a_later_statement_that_fails_is_heard(): void
    {
        $entry = (int) $this->ticket()['entry'];
        $change = [
            'entry_id' => $entry, 'record_type' => 'ticket', 'record_id' => 1, 'field' => 'hours', 'before' => 'null', 'after' => '"1"',
        ];
        $comment = [
            'record_type' => 'ticket', 'record_id' => 1, 'text' => 'Hello', 'author_id' => null, 'rule_id' => null,
            'at' => '2026-12-01 09:00:00', 'tells' => '[]',
        ];
        $count = static fn (): array => [DB::table('field_history')->count(), DB::table('comments')->count()];
        $before = $count();
        Batch::insertTogether([FieldChange::class => [$change, $change], Comment::class => [$comment]]);
        self::assertSame([$before[0] + 2, $before[1] + 1], $count());

        foreach ([
            'the first' => [FieldChange::class => [['entry_id' => null] + $change], Comment::class => [$comment]],
            'the last' => [FieldChange::class => [$change], Comment::class => [['text' => null] + $comment]],
        ] as $which => $rows) {
            $was = $count();
            try {
                DB::transaction(static fn () => Batch::insertTogether($rows));
                self::fail("{$which} had to be refused");
            } catch (QueryException) {
                self::assertSame($was, $count(), "nothing stays where {$which} fails");
            }
        }
        self::assertSame(1, (int) DB::scalar('SELECT 1'), 'and the connection goes on');
    }
}
