<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Schema\Schema;

/** What another wording of a role changes, in sentences: read by whoever is about to, and in the ledger afterwards. */
final readonly class RoleDifference
{
    public function __construct(private Schema $schema)
    {
    }

    /**
     * @param  ?Role  $before  null for a role that is new
     * @return list<string>
     */
    public function said(?Role $before, Role $after): array
    {
        $before ??= new Role($after->name, $after->label);
        $said = $before->label === $after->label ? [] : ["Called “{$after->label}” instead of “{$before->label}”."];
        foreach (Duty::cases() as $duty) {
            if ($before->has($duty) !== $after->has($duty)) {
                $said[] = ($after->has($duty) ? 'May now: ' : 'May no longer: ').lcfirst($duty->label()).'.';
            }
        }
        foreach (array_keys($before->reaches + $after->reaches) as $type) {
            foreach (Act::cases() as $act) {
                [$was, $is] = [$before->reach($act, $type), $after->reach($act, $type)];
                if ($was !== $is) {
                    $said[] = "{$this->plural($type)}: {$act->label()} – {$is->label()} instead of {$was->label()}.";
                }
            }
        }
        foreach (array_keys($before->fields + $after->fields) as $type) {
            foreach (array_keys(($before->fields[$type] ?? []) + ($after->fields[$type] ?? [])) as $field) {
                [$was, $is] = [$before->access($type, (string) $field), $after->access($type, (string) $field)];
                if ($was !== $is) {
                    $label = $this->schema->type($type)?->field((string) $field)->label ?? $field;
                    $said[] = "{$this->plural($type)}, {$label}: {$is->label()} instead of {$was->label()}.";
                }
            }
        }

        return $said;
    }

    private function plural(string $type): string
    {
        return $type === Role::EVERY_OTHER ? 'All other records' : $this->schema->type($type)->plural ?? $type;
    }
}
