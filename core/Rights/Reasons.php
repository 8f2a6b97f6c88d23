<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\House\Names;
use VividLedger\House\Person;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Says why somebody may do something with a record, or may not. */
final readonly class Reasons
{
    /** @param  Person  $person  whose sight it is */
    public function __construct(private AccessProfile $sight, private Person $person, private Names $names)
    {
    }

    public function may(Act $act, RecordType $type, Record $record): bool
    {
        return $this->sight->covers(Act::Read, $type, $record) && $this->sight->covers($act, $type, $record);
    }

    public function of(Act $act, RecordType $type, Record $record): string
    {
        $reach = $this->sight->role->reach($act, $type->name);
        $rule = Words::say('{role} has this right for {whose}', role: $this->sight->role->label, whose: match ($reach) {
            Reach::None => Words::say('nobody’s {plural}', plural: $this->plural($type)),
            Reach::All => Words::say('all {plural}', plural: $this->plural($type)),
            default => Words::say('{plural} that are {reach}', plural: $this->plural($type), reach: $reach->label()),
        });

        return "{$rule}{$this->because($reach, $type, $record)}.";
    }

    private function because(Reach $reach, RecordType $type, Record $record): string
    {
        if ($reach === Reach::None || $reach === Reach::All) {
            return '';
        }
        $owner = $record->value($type->owner);
        $whose = is_int($owner) ? $owner : $record->value('created_by');
        $person = is_int($whose) ? $this->names->person($whose) : null;
        if ($person === null) {
            return Words::say(', and this one has no owner');
        }
        if ($person->id === $this->person->id) {
            return is_int($owner) ? Words::say(', and this one is theirs') : Words::say(', and this one has no owner and was made by them');
        }
        $fact = match ($reach) {
            Reach::Team => $this->ofTeam($person->team),
            Reach::Subtree => $this->isBelow($person) ? Words::say('works for them') : Words::say('does not work for them'),
            default => Words::say('is somebody else'),
        };

        return is_int($owner) ? Words::say(', and this one is {person}’s, who {fact}', person: $person->name, fact: $fact)
            : Words::say(', and this one has no owner and was made by {person}, who {fact}', person: $person->name, fact: $fact);
    }

    private function ofTeam(string $team): string
    {
        return match (true) {
            $team === '' => Words::say('is in no team'),
            $team === $this->person->team => Words::say('is in {team} too', team: $team),
            $this->person->team === '' => Words::say('is in {team}, not in theirs', team: $team),
            default => Words::say('is in {team}, not in {other}', team: $team, other: $this->person->team),
        };
    }

    private function isBelow(Person $person): bool
    {
        $seen = [];
        for ($above = $person; $above !== null && ! isset($seen[$above->id]); $above = $this->above($above)) {
            $seen[$above->id] = true;
            if ($above->id === $this->person->id) {
                return true;
            }
        }

        return false;
    }

    private function above(Person $person): ?Person
    {
        return $person->managerId === null ? null : $this->names->person($person->managerId);
    }

    private function plural(RecordType $type): string
    {
        return Words::within($type->plural);
    }
}
