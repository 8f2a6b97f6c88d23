<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\SignOffs\StoredSignOff;
use App\Store\Rules\StoredRuleBook;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Facts\Facts;
use VividLedger\Facts\View;
use VividLedger\House\Directory;
use VividLedger\Rule\Line\AsksSignOff;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\SignOff\Clerk;
use VividLedger\SignOff\Route;
use VividLedger\SignOff\SignOff;
use VividLedger\SignOff\StepsSlot;
use VividLedger\SignOff\Times;

/** The route of a sign-off: the one it began with, whatever has since become of the rule or of the route that it names. */
final class SignOffRoutes
{
    /** @var array<string, ?Route> by the steps as they are written */
    private array $read = [];

    public function __construct(
        private readonly StoredRuleBook $rules,
        private readonly Directory $directory,
        private readonly SchemaStore $schemas,
        private readonly Company $company,
    ) {
    }

    /** Null when its page no longer reads. */
    public function of(StoredSignOff $kept): ?Route
    {
        if ($kept->route !== null) {
            return $this->written($kept->record_type, $kept->route);
        }
        $line = $this->rules->page($kept->rule_id, $kept->page)?->line($kept->place)?->bare();

        return $line instanceof AsksSignOff ? $line->route() : null;
    }

    /** Whether a line of its page waits for each who agrees. */
    public function hearsEachYes(StoredSignOff $kept): bool
    {
        return $this->rules->page($kept->rule_id, $kept->page)?->hearsEachYes($kept->line_key) ?? false;
    }

    /** Leads it along its route; null when its page no longer reads. */
    public function clerk(StoredSignOff $kept, View $view): ?Clerk
    {
        $route = $this->of($kept);

        return $route === null ? null : new Clerk($route, $view, $this->company->zone());
    }

    /** When it has to be tended next, as it stands after something was done to it. */
    public function wakesAt(StoredSignOff $kept, SignOff $signOff, Facts $facts): ?\DateTimeImmutable
    {
        $route = $signOff->isOpen() ? $this->of($kept) : null;

        return $route === null ? null : (new Times($route, $facts, $this->company->zone()))->wakesAt($signOff);
    }

    /** Whether those who are asked get a task, too: at a step, or at any. */
    public function givesTasks(StoredSignOff $kept, ?int $at = null): bool
    {
        foreach ($this->of($kept)->steps ?? [] as $nth => $step) {
            if ($step->task && ($at === null || $at === $nth)) {
                return true;
            }
        }

        return false;
    }

    /** @param  list<mixed>  $steps  as a rule file writes them */
    public function written(string $recordType, array $steps): ?Route
    {
        $key = $recordType.json_encode($steps);
        if (! array_key_exists($key, $this->read)) {
            $type = $this->schemas->schema()->type($recordType);
            $this->read[$key] = $type === null ? null : StepsSlot::written(
                new Context($this->schemas->schema(), $this->directory, $type, $this->company->zone()),
                new Node($steps, '/steps'),
            );
        }

        return $this->read[$key];
    }
}
