<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A team that is chosen. */
final readonly class TeamSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $teams = TeamName::all($context->scope());
        $editor = Editor::choose('Team', static fn (): array => array_map(
            static fn (string $team): Offer => new Offer($team, $team),
            $teams,
        ));
        $team = $node->text() ?? '';
        if (! in_array($team, $teams, true)) {
            $message = $team === '' ? Words::say('Choose a team.') : Words::say('There is no team ‘{team}’.', team: $team);

            return $context->gap($team === '' ? 'choose a team' : $team, $node->at, $editor, 'unknown_team', $message);
        }
        $context->word($team, WordRole::Person, $node->at, $editor);

        return $team;
    }

    protected function slot(): TeamName
    {
        return new TeamName;
    }
}
