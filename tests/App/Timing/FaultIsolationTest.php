<?php

declare(strict_types=1);

namespace Tests\App\Timing;

use App\Store\DomainError;
use App\Store\LedgerConnection;
use App\Store\RefusedFor;
use App\Store\Sql\FaultIsolation;
use App\Store\Sql\LostToAnother;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;

/** Whose fault a failure is, and so whether the others go on and whether the item is tried again. */
final class FaultIsolationTest extends AppTestCase
{
    /** @return iterable<string, array{\Throwable, string, string}> */
    public static function failures(): iterable
    {
        yield 'its own' => [new \LogicException('No such field.'), 'failed', 'failed'];
        yield 'refused' => [DomainError::missing('There is no Ticket T-1.'), 'failed', 'failed'];
        yield 'the row is held' => [new LostToAnother('Held.'), 'busy', 'thrown'];
        yield 'all tries are used up' => [new DomainError('busy', 'Try again.', RefusedFor::Busy), 'busy', 'thrown'];
        yield 'held, further down' => [new \RuntimeException('Not done.', previous: new LostToAnother('Held.')), 'busy', 'thrown'];
        yield 'the server is gone' => [new \RuntimeException('SQLSTATE[HY000]: MySQL server has gone away'), 'thrown', 'thrown'];
    }

    #[DataProvider('failures')]
    public function test_what_becomes_of_a_failure(\Throwable $failure, string $waiting, string $withoutWaiting): void
    {
        self::assertSame($waiting, $this->outcome($failure, static fn (): string => 'busy'));
        self::assertSame($withoutWaiting, $this->outcome($failure, null));
    }

    public function test_what_goes_well_is_handed_on(): void
    {
        self::assertSame('done', $this->outcome(null, null));
    }

    /** @param  ?\Closure(): string  $busy */
    private function outcome(?\Throwable $failure, ?\Closure $busy): string
    {
        $db = DB::connection();
        self::assertInstanceOf(LedgerConnection::class, $db);
        try {
            return (new FaultIsolation($db))->attempt(
                static fn (): string => $failure === null ? 'done' : throw $failure,
                static fn (\Throwable $seen): string => $seen === $failure ? 'failed' : 'another',
                $busy,
            );
        } catch (\Throwable $thrown) {
            return $thrown === $failure ? 'thrown' : 'another';
        }
    }
}
