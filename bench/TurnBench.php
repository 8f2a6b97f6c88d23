<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Store\HouseClock;
use App\Store\Rules\RuleStore;
use App\Work\Rules\RulePublisher;
use App\Work\Timing\ClockTurner;
use Illuminate\Database\Connection;
use VividLedger\Rule\RuleStatus;

/** The clock turned over a month in which nothing is due, with many timed rules in force. */
final class TurnBench
{
    private const NOW = '2026-11-24T09:00:00Z';

    private const RULES = 25;

    public static function run(): void
    {
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        app(HouseClock::class)->hold(new \DateTimeImmutable(self::NOW));
        $rules = [];
        foreach (range(1, self::RULES) as $number) {
            $when = $number % 2 === 0 ? [
                'kind' => 'date', 'field' => 'due', 'amount' => -$number, 'unit' => 'day', 'time' => '09:00',
            ] : ['kind' => 'quiet', 'of' => 'activity', 'amount' => 300 + $number, 'unit' => 'day'];
            $rule = app(RuleStore::class)->draft([
                'name' => "Timed {$number}", 'on' => 'ticket', 'when' => $when, 'fires' => ['kind' => 'every_time'], 'lines' => [
                    ['kind' => 'comment', 'text' => 'x'],
                ],
            ], $ines);
            app(RulePublisher::class)->publish($rule, 1, $ines);
            $rules[] = $rule;
        }
        $db = app(Connection::class);
        $turner = app(ClockTurner::class);
        $queries = 0;
        $db->listen(static function () use (&$queries): void {
            $queries++;
        });
        $at = new \DateTimeImmutable(self::NOW);
        $end = $at->modify('+30 days');
        $from = hrtime(true);
        while ($at < $end) {
            [$at] = $turner->step($at, $end);
        }
        $ours = (hrtime(true) - $from) / 1e9;
        $pdo = $db->getPdo();
        $asked = $queries;
        $from = hrtime(true);
        for ($count = 0; $count < $asked; $count++) {
            $read = $pdo->prepare("SELECT MIN(due_at) FROM scheduled_lines WHERE status = 'pencilled' AND due_at > ?");
            $read->execute(['2026-11-24 09:00:00']);
            $read->fetchAll();
        }
        $floor = (hrtime(true) - $from) / 1e9;
        Figures::pair('turning 30 empty days, 25 timed rules', $ours, "as many plain selects ({$asked})", $floor, 's', 10.0);
        Figures::one('the same', $ours, 's', 'under 1');
        foreach ($rules as $rule) {
            app(RulePublisher::class)->move($rule, RuleStatus::Retired, $ines);
        }
    }
}
