<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\House\Names;
use VividLedger\House\Person;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Says why somebody may do something with a record, or may not. */
final readonly class Reasons
{
    /** @param  Person  $person  whose sight it is */
    public function __construct(private Sight $sight, private Person $person, private Names $names)
    {
    }

    public function may(Act $act, RecordType $type, Record $record): bool
    {
        return $this->sight->covers(Act::Read, $type, $record) && $this->sight->covers($act, $type, $record);
    }

    public function of(Act $act, RecordType $type, Record $record): string
    {
        $reach = $this->sight->role->reach($act, $type->name);
        $rule = "{$this->sight->role->label} has this right for ".match ($reach) {
            Reach::None => "nobody’s {$this->plural($type)}",
            Reach::All => "all {$this->plural($type)}",
            default => "{$this->plural($type)} that are {$reach->label()}",
        };

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
            return ', and this one has no owner';
        }
        $how = is_int($owner) ? 'is' : 'has no owner and was made by';
        if ($person->id === $this->person->id) {
            return is_int($owner) ? ', and this one is theirs' : ', and this one has no owner and was made by them';
        }
        $fact = match ($reach) {
            Reach::Team => $person->team === $this->person->team && $person->team !== '' ? "is in {$person->team} too"
                : ($person->team === ''
                ? 'is in no team' : "is in {$person->team}, not in ".($this->person->team === '' ? 'theirs' : $this->person->team)),
            Reach::Subtree => $this->isBelow($person) ? 'works for them' : 'does not work for them',
            default => 'is somebody else',
        };

        return is_int($owner) ? ", and this one {$how} {$person->name}’s, who {$fact}"
            : ", and this one {$how} {$person->name}, who {$fact}";
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
        return mb_strtolower($type->plural);
    }
}
