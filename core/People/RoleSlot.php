<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Schema\People;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A role that people have in the application, chosen by its label. */
final readonly class RoleSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $editor = Editor::choose('Role', static fn (): array => array_map(
            static fn (string $role, string $label): Offer => new Offer($label, $role),
            array_keys(People::ROLES),
            People::ROLES,
        ));
        $role = $node->text() ?? '';
        if (! isset(People::ROLES[$role])) {
            $message = $role === '' ? Words::say('Choose a role.') : Words::say('There is no role ‘{role}’.', role: $role);

            return $context->gap($role === '' ? 'choose a role' : $role, $node->at, $editor, 'unknown_role', $message);
        }
        $context->word(People::ROLES[$role], WordRole::Person, $node->at, $editor);

        return $role;
    }

    protected function slot(): Labels
    {
        return Labels::of(array_flip(People::ROLES));
    }
}
