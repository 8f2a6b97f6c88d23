<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Store\Access\AccessScope;
use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use VividLedger\Record\Display;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** Groups of a list as people read them, in the order in which they look for them. */
final readonly class GroupResources
{
    public function __construct(
        private PeopleStore $names,
        private Company $company,
        private AccessScope $inSight,
    ) {
    }

    /**
     * @param  list<Field>  $sums
     * @param  list<array{value: string|int|bool|null, count: int, sums: array<string, string>}>  $groups
     * @return list<GroupResource> choices in their order, others by name; without a value last
     */
    public function of(Field $by, array $sums, array $groups): array
    {
        $this->names->remember([[$by, array_column($groups, 'value')]]);
        $display = Display::spoken($this->names, $this->company->zone());
        $resources = [];
        foreach ($groups as $group) {
            $added = [];
            foreach ($sums as $field) {
                $added[$field->name] = $display->of($field, $group['sums'][$field->name]);
            }
            $value = $group['value'];
            $resources[] = new GroupResource(
                $value, $value === null ? '' : $display->of($by, $value), $this->key($by, $value), $group['count'], $added,
            );
        }
        $choices = array_map(static fn (Choice $choice): string => $choice->value, $by->choices);
        $rank = static fn (GroupResource $one): array => [
            $one->value === null ? 1 : 0, $choices === [] ? 0 : (int) array_search($one->value, $choices, true),
            mb_strtolower($one->label),
        ];
        usort($resources, static fn (GroupResource $one, GroupResource $other): int => $rank($one) <=> $rank($other));

        return $resources;
    }

    private function key(Field $by, string|int|bool|null $value): ?string
    {
        return match (true) {
            $value === null => null,
            $by->type === FieldType::Person => $this->names->person((int) $value)->handle ?? null,
            $by->type === FieldType::Reference => $this->inSight->schema()->type((string) $by->target)?->numberOf((int) $value),
            is_bool($value) => $value ? 'true' : 'false',
            default => (string) $value,
        };
    }
}
