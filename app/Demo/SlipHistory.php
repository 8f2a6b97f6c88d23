<?php

declare(strict_types=1);

namespace App\Demo;

use App\Models\Columns;
use App\Models\Outbound\CallStatus;
use App\Models\Outbound\StoredCall;
use App\Models\Records\StoredRecord;
use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\Records\SaveRecord;
use App\Store\Slips\SlipService;
use App\Store\Types\SchemaStore;
use App\Work\Outbound\BackOfficeDoor;
use App\Work\Outbound\CallDispatcher;
use App\Work\Slips\SlipsDue;
use VividLedger\Slip\TurnState;

/** Crews answer most slips, some with a no, and some not at all, so that a job goes to the next; finance gives its two numbers. */
final class SlipHistory implements DemoPart
{
    /** Of a hundred so many say that it is done; those who say no come next, and whoever is left says nothing. */
    private const DONE = 68;

    private const NOT_DONE = 12;

    /** So many prospects become customers in the last weeks. */
    private const CONVERTED = 8;

    private const CONVERTED_DAYS = 28;

    private const LATELY_DAYS = 5;

    /** So many calls are made at a time, in a history. */
    private const CALLS = 20;

    private const REASONS = ['The door was locked', 'Nobody was there to let us in', 'The lift was out of order', 'A pump is missing'];

    private const NAMES = ['Rosa Bell', 'Tim Ashdown', 'Mina Lark', 'Olle Strand', 'Vera Moss'];

    private Stage $stage;

    /** Chance of its own, so that all else goes on as it was. */
    private Stage $chance;

    private int $lastTurn = 0;

    private int $numbers = 0;

    private ?\DateTimeImmutable $next = null;

    public function __construct(
        private readonly SlipService $desk,
        private readonly SlipsDue $due,
        private readonly SaveRecord $save,
        private readonly SchemaStore $schemas,
        private readonly CallDispatcher $caller,
    ) {
        $this->stage = $this->chance = new Stage(0, 0);
    }

    public function begin(Stage $stage, int $seed): void
    {
        [$this->stage, $this->lastTurn, $this->numbers] = [$stage, 0, 0];
        $this->chance = new Stage($seed + 2, $stage->end);
        for ($count = 0; $count < self::CONVERTED; $count++) {
            $from = $stage->end - self::CONVERTED_DAYS * 86_400;
            $stage->at($this->chance->workingMoment($from, $stage->end - 86_400), $this->convert(...));
        }
    }

    public function next(): ?\DateTimeImmutable
    {
        $at = StoredSlip::rows()->min('wakes_at');

        return $this->next = is_string($at) ? Columns::instant($at) : null;
    }

    public function tend(\DateTimeImmutable $now): void
    {
        if ($this->next !== null && $this->next <= $now) {
            $this->due->work();
        }
    }

    public function answer(): void
    {
        $turns = SlipTurnRow::query()->with('slip')->where('id', '>', $this->lastTurn)->where('state', TurnState::Waiting)
            ->orderBy('id')->get();
        foreach ($turns as $turn) {
            $this->lastTurn = $turn->id;
            $sent = $turn->sent_at->getTimestamp();
            // Of the latest some are still out.
            $isLate = $sent > $this->stage->end - self::LATELY_DAYS * 86_400 && $this->chance->onceIn(2);
            $answers = $turn->slip->record_type === 'visit' ? $this->crew() : $this->finance();
            if ($answers !== null && ! $isLate) {
                $hours = $this->chance->onceIn(5) ? 30 : 7;
                $this->stage->at($sent + 3600 + $this->chance->random->getInt(1, $hours * 3600), fn () => $this->say($turn, $answers));
            }
        }
        // What goes to the back office goes there really, where it runs.
        if (BackOfficeDoor::isOpen() && StoredCall::query()->where('status', CallStatus::Waiting)->where('tries', 0)->exists()) {
            $this->caller->work(self::CALLS);
        }
    }

    /** @param  list<string>  $answers */
    private function say(SlipTurnRow $turn, array $answers): void
    {
        try {
            $this->desk->answer($turn, $answers, $turn->person_id, static function (): void {
            });
        } catch (DomainError) {
            // It has ended meanwhile, or somebody else has it by now.
        }
    }

    /** @return ?list<string> what a crew answers; null for silence */
    private function crew(): ?array
    {
        $roll = $this->chance->random->getInt(1, 100);
        $name = (string) $this->chance->one(self::NAMES);

        return match (true) {
            $roll <= self::DONE => ['Done', '', '', (string) ($this->chance->random->getInt(2, 14) / 4), '1', '', $name],
            $roll <= self::DONE + self::NOT_DONE => [
                'Not done', (string) $this->chance->one(self::REASONS), $this->chance->onceIn(2) ? 'Pump' : '', '', '', '', $name,
            ],
            default => null,
        };
    }

    /** @return list<string> the two numbers; one of them is misread, and bookkeeping will refuse it */
    private function finance(): array
    {
        $tax = ++$this->numbers === 3 ? 'DE81726' : 'DE'.$this->chance->random->getInt(100_000_000, 999_999_999);

        return [$tax, 'D-'.(70_000 + $this->numbers)];
    }

    private function convert(): void
    {
        $type = $this->schemas->schema()->types['customer'];
        $row = StoredRecord::rowsOf($type)->where('status', 'prospect')->orderBy('id')->first();
        if ($row !== null) {
            $customer = Columns::record($type, $row);
            $owner = $customer->value('owner');
            $actor = new Actor(is_int($owner) ? $owner : null);
            $this->save->change($type, $customer->id, $customer->version, ['status' => 'active'], $actor);
        }
    }
}
