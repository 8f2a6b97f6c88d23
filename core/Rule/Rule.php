<?php

declare(strict_types=1);

namespace VividLedger\Rule;

use Closure;
use VividLedger\Condition\Condition;
use VividLedger\Engine\View;
use VividLedger\Record\Change;
use VividLedger\Rule\Guard\RepeatGuard;
use VividLedger\Rule\Line\Line;
use VividLedger\Rule\Trigger\Trigger;

/** One page of a rule, read and sound. */
final class Rule
{
    /** @var ?Closure(View): bool */
    private ?Closure $test = null;

    /**
     * @param  int  $id  of the rule; 0 for one that is not kept anywhere
     * @param  int  $page  the number of the page, from 1
     * @param  string  $on  name of the record type
     * @param  list<Line>  $lines
     */
    public function __construct(
        public readonly int $id,
        public readonly int $page,
        public readonly string $name,
        public readonly string $on,
        public readonly Trigger $trigger,
        public readonly Condition $condition,
        public readonly RepeatGuard $guard,
        public readonly array $lines,
    ) {
    }

    /** The condition as a closure, compiled at the first use. */
    public function holds(View $view): bool
    {
        $test = $this->test ??= $this->condition->compile();

        return $test($view);
    }

    /** Whether a change is the rule's to answer: its trigger takes it, and it touches what the rule watches. */
    public function looksAt(Change $change): bool
    {
        if (! $this->trigger->accepts($change)) {
            return false;
        }
        if ($change->before === null) {
            return true;
        }
        $fields = $this->watches();

        return $fields === null ? $change->fields() !== [] : array_intersect($fields, $change->fields()) !== [];
    }

    /**
     * The fields whose change can make the rule fire on an existing record; null for every field.
     *
     * A rule that waits for its conditions to become true and takes any change needs to look only when a field changes
     * that its conditions read.
     *
     * @return ?list<string>
     */
    public function watches(): ?array
    {
        $fields = $this->trigger->onChangeOf();
        if ($fields !== null || ! $this->guard->wantsTurn()) {
            return $fields;
        }
        $read = [];
        foreach ($this->condition->paths() as $path) {
            if ($path->first()->system) {
                return null;
            }
            $read[$path->first()->name] = true;
        }

        return array_keys($read);
    }
}
