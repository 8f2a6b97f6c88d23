<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Store\Actor;
use App\Store\HouseClock;
use App\Store\LedgerConnection;
use App\Store\Sql\FaultIsolation;
use App\Work\Operations\ConfigurationWatch;

/**
 * Puts into ink what falls due. Any number of workers may run: a batch is claimed with SKIP LOCKED and done in the same
 * transaction, so a worker that dies leaves its batch to the next one, and no line is done twice. Where one line spoils a
 * batch, each is done by itself, and the one that cannot be done is set aside.
 */
final readonly class LineWorker
{
    public function __construct(
        private LedgerConnection $db,
        private HouseClock $clock,
        private DueRows $rows,
        private DueLineProcessor $ink,
        private FaultIsolation $isolation,
    ) {
    }

    /**
     * @param  ?ConfigurationWatch  $watch  of a program that runs for days: what it claimed is not done by what has been changed meanwhile
     * @return int how many lines came to their end; fewer than a batch means that nothing more is due, or others are at it
     */
    public function work(int $batch, ?ConfigurationWatch $watch = null): int
    {
        /** @var list<DueRow> $claimed */
        $claimed = [];
        $apart = function (\Throwable $broken) use (&$claimed): int {
            return $claimed === [] ? throw $broken : array_sum(array_map($this->alone(...), DueRows::moments($claimed)));
        };

        return $this->isolation->attempt(
            function () use ($batch, $watch, &$claimed): int {
                return $this->db->transaction(function () use ($batch, $watch, &$claimed): int {
                    $claimed = $this->rows->claim($batch);

                    return $claimed === [] || $watch?->hasMoved() === true ? 0 : $this->ink->perform($this->rows->wholeMoments($claimed));
                });
            },
            $apart,
            $apart,
        );
    }

    /**
     * Does one line now, whenever it was to fall due. The line is locked already.
     *
     * @param  array<string, mixed>  $data  what the entry keeps besides
     */
    public function performNow(DueRow $row, Actor $actor, array $data): void
    {
        $this->ink->perform([$row], $actor, $data);
    }

    /**
     * The lines of one moment, in a transaction of their own; where they cannot be done together, line by line.
     *
     * @param  non-empty-list<DueRow>  $moment
     */
    private function alone(array $moment): int
    {
        $ids = array_map(static fn (DueRow $row): int => $row->id, $moment);

        return $this->isolation->attempt(
            fn (): int => $this->db->transaction(function () use ($ids): int {
                $rows = $this->rows->again($ids);

                return $rows === [] ? 0 : $this->ink->perform($this->rows->wholeMoments($rows));
            }),
            fn (\Throwable $broken): int => count($moment) > 1
                ? array_sum(array_map($this->single(...), $moment))
                : $this->setAside($moment[0], $broken),
            self::later(...),
        );
    }

    /** One line of a moment of which another cannot be done. */
    private function single(DueRow $row): int
    {
        return $this->isolation->attempt(
            fn (): int => $this->db->transaction(fn (): int => $this->ink->perform($this->rows->again([$row->id]))),
            fn (\Throwable $broken): int => $this->setAside($row, $broken),
            self::later(...),
        );
    }

    /** What others hold for too long stays pencilled in as it is, and is claimed again. */
    private static function later(): int
    {
        return 0;
    }

    private function setAside(DueRow $row, \Throwable $broken): int
    {
        $this->db->transaction(function () use ($row, $broken): void {
            $still = $this->rows->still($row->id);
            if ($still !== null) {
                DeadLetters::line($still, $this->clock->now(), DeadLetters::because($broken));
            }
        });

        return 1;
    }
}
