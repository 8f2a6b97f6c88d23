<?php

declare(strict_types=1);

namespace App\Store;

use App\Store\Sql\LockPlan;
use App\Store\Sql\LostToAnother;
use Closure;
use Illuminate\Database\DetectsConcurrencyErrors;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Database\MariaDbConnection;
use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/**
 * The connection to the database. A transaction that loses to another one, while it works or at its commit as on a clustered
 * database, leaves nothing behind on the connection and is done once more, from the outermost on.
 */
final class LedgerConnection extends MariaDbConnection
{
    use DetectsConcurrencyErrors;

    private const TRIES = 8;

    /** Why a transaction is refused that lost to others each time that it was tried. */
    private const BUSY = 'busy';

    /** Deadlock, lock wait time-out, record changed since read, node not ready. */
    private const LOST_TO_ANOTHER = [1213, 1205, 1020, 1047];

    private ?LockPlan $lockPlan = null;

    /** @var ?Closure(): Schema */
    private ?Closure $schema = null;

    private int $depth = 0;

    /** By when somebody has to have their answer, as microtime() tells; null where nobody waits for it. */
    private ?float $answerBy = null;

    /** @var list<Closure(): void> */
    private array $afterwards = [];

    /** What the outermost transaction has locked so far. */
    public function lockPlan(): LockPlan
    {
        return $this->lockPlan ??= new LockPlan;
    }

    /** What is not done by then is undone: whoever has waited so long is told that nothing happened, and that has to be true. */
    public function answersBy(?float $moment): void
    {
        $this->answerBy = $moment;
    }

    /** @param  Closure(): Schema  $schema  tells the order of locks */
    public function locksInOrderOf(Closure $schema): void
    {
        $this->schema = $schema;
    }

    /**
     * @param  int  $attempts  more than one is no more than the connection tries by itself
     */
    public function transaction(Closure $callback, $attempts = 1): mixed
    {
        if ($this->depth > 0) {
            return parent::transaction($callback);
        }
        $this->lockPlan()->forget();
        $again = function () use ($callback): mixed {
            if ($this->schema !== null) {
                $this->lockPlan()->take(($this->schema)());
            }

            return $callback($this);
        };
        for ($try = 1; ; $try++) {
            try {
                $result = $this->once($try === 1 ? $callback : $again);
                $this->doAfterwards();

                return $result;
            } catch (\Throwable $thrown) {
                if (! $this->isLostToAnother($thrown)) {
                    $this->doAfterwards();
                    throw $thrown;
                }
                $this->afterwards = [];
                if ($try >= self::TRIES) {
                    throw new DomainError(
                        self::BUSY,
                        Words::say('Others are changing the same records just now. Try again in a moment.'),
                        RefusedFor::Busy,
                    );
                }
                usleep(random_int(2_000, 20_000) * $try);
            }
        }
    }

    /** Does something once the outermost transaction has ended, whichever way; at once where there is none. */
    public function afterwards(Closure $work): void
    {
        if ($this->depth === 0) {
            $work();
        } else {
            $this->afterwards[] = $work;
        }
    }

    public function isLostToAnother(\Throwable $thrown): bool
    {
        for ($cause = $thrown; $cause !== null; $cause = $cause->getPrevious()) {
            if ($cause instanceof LostToAnother
                || ($cause instanceof DomainError && $cause->reason === self::BUSY)
                || ($cause instanceof \PDOException && in_array($cause->errorInfo[1] ?? null, self::LOST_TO_ANOTHER, true))
                || $this->causedByConcurrencyError($cause)) {
                return true;
            }
        }

        return false;
    }

    /** Whether the server is not there: then nothing else can be done either, and what was at hand is still due. */
    public function isGone(\Throwable $thrown): bool
    {
        for ($cause = $thrown; $cause !== null; $cause = $cause->getPrevious()) {
            if ($this->causedByLostConnection($cause)) {
                return true;
            }
        }

        return false;
    }

    /**
     * Nobody is told of what nobody listens to: telling took a tenth of a save.
     *
     * @param  object  $event
     */
    protected function event($event): void
    {
        if ($this->events?->hasListeners($event::class) === true) {
            parent::event($event);
        }
    }

    /**
     * @param  string  $query
     * @param  array<array-key, mixed>  $bindings
     * @param  ?float  $time  in milliseconds
     */
    public function logQuery($query, $bindings, $time = null): void
    {
        if ($this->loggingQueries || $this->events?->hasListeners(QueryExecuted::class) === true) {
            parent::logQuery($query, $bindings, $time);
        }
    }

    /**
     * Several statements in one round trip, which each of them costs more than doing it; a failure of any is the failure of all.
     *
     * @param  list<string>  $statements
     * @param  list<mixed>  $bindings  of all of them, one after the other
     */
    public function several(array $statements, array $bindings): void
    {
        $this->run(implode('; ', $statements), $bindings, function (string $query, array $bindings): void {
            $statement = $this->getPdo()->prepare($query);
            $this->bindValues($statement, $this->prepareBindings($bindings));
            $this->recordsHaveBeenModified();
            $statement->execute();
            // A later one that failed says so when its turn to be read comes.
            while ($statement->nextRowset());
        });
    }

    private function once(Closure $callback): mixed
    {
        $level = $this->transactionLevel();
        $this->beginTransaction();
        $this->depth++;
        try {
            $result = $callback($this);
            if ($this->answerBy !== null && microtime(true) > $this->answerBy) {
                throw new DomainError(
                    'takes_too_long',
                    Words::say('This takes longer than anybody should wait, and nothing was changed. Do it in smaller parts.'),
                    RefusedFor::Busy,
                );
            }
            $this->commit();

            return $result;
        } catch (\Throwable $thrown) {
            $this->giveUp($level);
            throw $thrown;
        } finally {
            $this->depth--;
        }
    }

    /** After a failed commit the driver may believe that the transaction goes on, whatever the server has made of it. */
    private function giveUp(int $level): void
    {
        try {
            $this->rollBack($level);
        } catch (\Throwable) {
            $this->transactions = $level;
        }
        if ($level === 0 && $this->getRawPdo() instanceof \PDO && $this->getRawPdo()->inTransaction()) {
            $this->disconnect();
        }
    }

    private function doAfterwards(): void
    {
        while (($work = array_shift($this->afterwards)) !== null) {
            $work();
        }
    }
}
