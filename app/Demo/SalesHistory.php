<?php

declare(strict_types=1);

namespace App\Demo;

use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Closure;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Quotes and what becomes of them: agreements made by a rule, and the visits that partners pay until none is left. */
final class SalesHistory
{
    private const QUOTES = 320;

    private const DAY = 86_400;

    /** One in so many visits is to be free of charge. */
    private const FREE = 23;

    private int $visits = 0;

    private Stage $stage;

    /** @var array<string, mixed> */
    private array $words = [];

    /** @var list<Record> */
    private array $partners = [];

    /** @var Closure(): Record */
    private Closure $customer;

    /** @var Closure(int): ?int */
    private Closure $contact;

    public function __construct(
        private readonly SchemaStore $schemas,
        private readonly SaveRecord $save,
        private readonly HouseClock $clock,
    ) {
        $this->stage = new Stage(0, 0);
    }

    /**
     * @param  array<string, mixed>  $words
     * @param  Closure(): Record  $customer  one of the customers there are
     * @param  Closure(int): ?int  $contact  one of a customer's contacts
     */
    public function begin(Stage $stage, int $begin, array $words, float $share, Closure $customer, Closure $contact): void
    {
        [$this->stage, $this->words, $this->customer, $this->contact] = [$stage, $words, $customer, $contact];
        $this->partners = [];
        $crew = Person::query()->where('team', 'Operations')->orderBy('id')->firstOrFail()->id;
        foreach ($words['partners'] as $index => $name) {
            $stage->at($begin + self::DAY + $index, fn () => $this->partner($name, $crew));
        }
        for ($index = 0; $index < self::QUOTES * $share; $index++) {
            $at = $index % 5 === 0 ? $stage->workingMoment(
                $stage->end - 40 * self::DAY,
                $stage->end,
            ) : $stage->workingMoment($begin + 3 * self::DAY, $stage->end);
            $stage->at($at, fn () => $this->quote());
        }
    }

    private function partner(string $name, int $owner): void
    {
        $handle = trim((string) preg_replace('/[^a-z]+/', '-', strtolower($name)), '-');
        $this->partners[] = $this->save->create($this->type('partner'), [
            'name' => $name, 'depot' => $this->stage->one([
                'quayside', 'hillgate', 'birchmoor',
            ]), 'email' => "office@{$handle}.example", 'phone' => '+49 30 5553 '.$this->stage->random->getInt(1000, 9999),
            'visits_done' => 0, 'owner' => $owner,
        ], new Actor($owner))->record;
    }

    private function quote(): void
    {
        $customer = ($this->customer)();
        $seller = (int) $customer->value('owner');
        $now = $this->clock->now();
        $saved = $this->save->create($this->type('quote'), [
            'subject' => strtr(
                $this->stage->one($this->words['quotes']),
                ['{name}' => (string) $customer->value('name')],
            ), 'customer' => $customer->id, 'contact' => ($this->contact)($customer->id),
            'stage' => 'draft', 'amount' => (string) ($this->stage->random->getInt(10, 240) * 100),
            'discount' => (string) $this->stage->one([0, 0, 0, 5, 8, 15, 18, 35]),
            'spaces' => array_slice(
                $this->stage->random->shuffleArray(['lobby', 'offices', 'rooms', 'spa', 'terrace']),
                0,
                $this->stage->random->getInt(1, 3),
            ), 'valid_until' => $now->modify('+45 days')->format('Y-m-d'), 'owner' => $seller,
        ], new Actor($seller));
        $this->later($saved->record->id, $seller, $now->getTimestamp(), 'sent');
    }

    /** The next stage of a quote, some days on. */
    private function later(int $quote, int $seller, int $from, string $stage): void
    {
        $at = $this->stage->workingMoment($from + self::DAY, $from + 16 * self::DAY);
        $this->stage->at($at, function () use ($quote, $seller, $stage, $at): void {
            $values = ['stage' => $stage] + ($stage === 'lost' ? ['lost_because' => $this->stage->one($this->words['lost'])] : []);
            $version = StoredRecord::of('quote')->newQuery()->findOrFail($quote)->version;
            try {
                $this->save->change($this->type('quote'), $quote, $version, $values, new Actor($seller));
            } catch (DomainError) {
                // It waits for a sign-off; they try again some days on.
                $this->later($quote, $seller, $at, $stage);

                return;
            }
            if ($stage === 'won') {
                $this->visits($quote, $at);
            } elseif ($stage !== 'lost') {
                $this->later(
                    $quote,
                    $seller,
                    $at,
                    $stage === 'sent' ? $this->stage->one(['talks', 'talks', 'won', 'lost']) : $this->stage->one(['won', 'won', 'lost']),
                );
            }
        });
    }

    /** A rule made the agreement; a partner's crew visits about once a month until no visit is left. */
    private function visits(int $quote, int $from): void
    {
        $agreement = StoredRecord::rowsOf('agreement')->where('quote', $quote)->first(['id', 'owner']);
        for ($month = 0; $agreement !== null && $month < 13; $month++) {
            $at = $this->stage->workingMoment($from + (8 + 30 * $month) * self::DAY, $from + (14 + 30 * $month) * self::DAY);
            $this->stage->at($at, fn () => $this->visit((int) $agreement->id, (int) $agreement->owner, $at));
        }
    }

    private function visit(int $agreement, int $owner, int $from): void
    {
        $type = $this->type('visit');
        try {
            $visit = $this->save->create($type, [
                'purpose' => $this->stage->one($this->words['purposes']), 'agreement' => $agreement,
                'partner' => $this->stage->one($this->partners)->id,
                'planned' => gmdate('Y-m-d', $from + 5 * self::DAY), 'status' => 'planned', 'owner' => $owner,
                // By its turn, so that chance goes on as it was.
                'free' => ++$this->visits % self::FREE === 0,
            ], new Actor($owner))->record;
        } catch (DomainError) {
            // The rule that guards against visits beyond the agreement said no, as it should.
            return;
        }
        $done = $this->stage->workingMoment($from + 4 * self::DAY, $from + 7 * self::DAY);
        // Some of the latest crews have not reported yet.
        if ($from > $this->stage->end - 20 * self::DAY && $this->stage->onceIn(3)) {
            return;
        }
        $this->stage->at($done, function () use ($type, $visit, $owner): void {
            $version = StoredRecord::of('visit')->newQuery()->findOrFail($visit->id)->version;
            $values = $this->stage->onceIn(12) ? ['status' => 'cancelled'] : [
                'status' => 'done', 'hours' => (string) ($this->stage->random->getInt(2, 16) / 4),
                'rating' => (string) $this->stage->one([5, 5, 5, 4, 4, 4, 3, 2]), 'report' => $this->stage->one($this->words['reports']),
            ];
            $this->save->change($type, $visit->id, $version, $values, new Actor($owner));
        });
    }

    private function type(string $name): RecordType
    {
        return $this->schemas->schema()->type($name) ?? throw new \LogicException("The demo has no {$name}.");
    }
}
