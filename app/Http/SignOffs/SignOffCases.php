<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Timing\AheadStepResource;
use App\Models\People\Person;
use App\Models\SignOffs\StoredSignOff;
use App\Store\People\PeopleStore;
use App\Store\Records\PaperFacts;
use App\Store\Setup\Company;
use App\Store\SignOffs\CaseFacts;
use App\Store\SignOffs\SignOffRoutes;
use Brick\Math\BigDecimal;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\SignOff\AsksAmount;
use VividLedger\SignOff\Route;
use VividLedger\SignOff\SignOff;

/** Reads all that whoever decides wants to see of a sign-off. */
final readonly class SignOffCases
{
    public function __construct(
        private SignOffs $signOffs,
        private CaseFacts $facts,
        private SignOffRoutes $routes,
        private PeopleStore $names,
        private Company $company,
        private PaperFacts $now,
    ) {
    }

    public function one(StoredSignOff $kept, Person $me): SignOffCase
    {
        $signOff = $kept->signOff();
        $record = $this->now->record($kept->record_type, $kept->record_id);
        $clerk = $record === null ? null : $this->routes->clerk($kept, new View($record, $this->now));
        $ahead = array_map(fn (array $step): AheadStepResource => new AheadStepResource(
            $step['step'] + 1,
            array_map(fn (int $id): string => $this->names->person($id)->name ?? '', $step['people']),
            $step['leftOut'],
        ), $clerk?->ahead($signOff) ?? []);
        $mine = $signOff->waitsFor($me->id);
        $correct = $mine === null || $clerk === null ? [] : $clerk->mayCorrect($signOff, $me->id);
        $amount = $record === null ? null : $this->amount($this->routes->of($kept), $signOff, $record);
        $limit = $amount === null ? null : $this->names->person($me->id)?->limitFor($kept->record_type);

        return new SignOffCase(
            signOff: $this->signOffs->one($kept, $me), isNew: $this->facts->isNew($kept), changed: self::changes($this->facts->of($kept)),
            ahead: $ahead, before: $this->signOffs->resources($this->facts->before($kept), $me),
            correct: array_map(static fn (Field $field): string => $field->name, $correct),
            amount: $amount === null ? null : $this->display()->of($amount, $record->value($amount->name)),
            limit: $amount === null || $limit === null ? null
            : $this->display()->of($amount, (string) BigDecimal::of($limit)->toScale($amount->scale)),
        );
    }

    /**
     * @param  list<array{label: string, before: string, after: string}>  $changed
     * @return list<CaseChangeResource>
     */
    public static function changes(array $changed): array
    {
        return array_map(
            static fn (array $one): CaseChangeResource => new CaseChangeResource($one['label'], $one['before'], $one['after']),
            $changed,
        );
    }

    private function amount(?Route $route, SignOff $signOff, Record $record): ?Field
    {
        $who = $route === null || ! isset($route->steps[$signOff->step]) ? null : $route->steps[$signOff->step]->who;

        return $who instanceof AsksAmount && $record->value($who->amount()->name) !== null ? $who->amount() : null;
    }

    private function display(): Display
    {
        return Display::spoken($this->names, $this->company->zone());
    }
}
