<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverKeys;
use Facebook\WebDriver\WebDriverSelect;
use Tests\Browser\Support\BrowserTestCase;

/** Rules in time: written, tried by turning the house clock, answered in the middle, moved with their date, put in force in three ways. */
final class TurnForwardTest extends BrowserTestCase
{
    public function test_a_chase_through_its_whole_life_and_answered_in_the_middle(): void
    {
        $this->signIn('ines.okafor');
        $this->writeTheChase();
        $contact = $this->api(
            'POST',
            'records/contact',
            ['values' => ['name' => 'Marit Solheim', 'customer' => 1, 'email' => 'marit@brine.example', 'may_write' => true]],
        )['record']['id'];
        $silent = $this->waiting('Lift smells of moss', $contact);
        $this->see('[data-ahead]', 'Remind the owner “Ask again”');
        $this->see('[data-ahead]', 'Send the Contact an e-mail with the letter ‘Still with us?’');

        $this->turn('A week');
        $this->turn('A week');
        $this->keys(WebDriverKeys::ESCAPE);
        $this->open("/records/ticket/{$silent}");
        $this->see('[data-kind=line]', 'Note “Ask again”');
        $this->see('[data-kind=line]', 'E-mail “Still with us? Lift smells of moss” to Marit Solheim');
        $this->see('[data-kind=line]', 'Status set to Closed');
        $this->notSee('[data-ahead]', 'Still with us?');
        $this->see('[aria-label^="Time at each stage"]', 'Waiting on customer');

        $answered = $this->waiting('Moss on the stairs', $contact);
        $this->turn('A week');
        $this->keys(WebDriverKeys::ESCAPE);
        $this->tab('Mail room');
        $this->see('.envelope', 'Still with us? Moss on the stairs')->click();
        $this->press('Answer…');
        $this->see('textarea[aria-label=Answer]')->sendKeys('It is gone, thank you.');
        $this->press('Send the answer');
        $this->see('[role=status]', 'The answer has arrived');
        $this->open("/records/ticket/{$answered}");
        $this->see('[data-kind=reply]', 'It is gone, thank you.');
        $this->see('[data-kind=struck]', 'until it gets a reply');
        $this->until(
            fn (): bool => $this->browser->findElements(WebDriverBy::cssSelector('[data-ahead]')) === [] || ! str_contains(
                $this->text('.leaf.right .margined'),
                'Ask again, ',
            ),
            'for the lines to go',
        );
    }

    public function test_a_date_moves_and_its_line_with_it_and_people_have_their_say(): void
    {
        $this->signIn('ines.okafor');
        $this->inForce(['name' => 'Before it is due', 'on' => 'ticket', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'once_per_record'], 'lines' => [
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Due soon',
                    'at' => ['kind' => 'date', 'field' => 'due', 'amount' => -10, 'unit' => 'day', 'time' => '09:00'],
                ],
            ]]);
        $ticket = $this->ticket(['subject' => 'Palm leans', 'due' => '2031-03-20']);
        $this->open("/records/ticket/{$ticket}");
        $line = $this->see('[data-ahead]', 'Due soon');
        self::assertStringContainsString('10 Mar 2031 09:00', $line->getText());
        $this->api(
            'PATCH',
            "records/ticket/{$ticket}",
            ['version' => $this->api('GET', "records/ticket/{$ticket}")['version'], 'values' => ['due' => '2031-04-20']],
        );
        $this->open("/records/ticket/{$ticket}");
        $this->see('[data-ahead]', '10 Apr 2031 09:00');
        $this->see('[data-kind=retimed]', '10 Mar 2031 09:00 → 10 Apr 2031 09:00');

        foreach ([['Hold', 'Hold it', 'held'], ['Go on', 'Let it go on', 'resumed'], ['Do it now', 'Do it now', 'line']] as [$act, $go,
            $kind]) {
            $this->browser->executeScript(
                "[...document.querySelectorAll('[data-ahead] .acts button')].find((button) => button.textContent.trim() === "
                    ."'{$act}').click()",
            );
            $this->see('dialog input[aria-label=Why], [role=dialog] input[aria-label=Why]')->sendKeys("because of {$kind}");
            $this->press($go, 'dialog button, [role=dialog] button');
            $this->see("[data-kind={$kind}]", "because of {$kind}");
        }
        $this->notSee('[data-ahead]', 'Due soon');
    }

    public function test_a_rule_is_put_in_force_over_what_is_there_in_each_of_three_ways(): void
    {
        $this->signIn('ines.okafor');
        $tickets = [
            $this->ticket(['subject' => 'Hedge one', 'topic' => 'watering', 'hours' => '77']),
            $this->ticket(['subject' => 'Hedge two', 'topic' => 'watering', 'hours' => '77']),
        ];
        foreach (['Leave them' => 0, 'Count them as done' => 0, 'Start it for them' => 2] as $way => $fired) {
            $draft = $this->api('POST', 'rules', ['file' => ['name' => "Way: {$way}", 'on' => 'ticket', 'when' => [
                'kind' => 'changed', 'fields' => ['cost'],
            ], 'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'hours', 'value' => '77']],
            ],
                'fires' => ['kind' => 'once_per_record'], 'lines' => [['kind' => 'comment', 'text' => "by {$way}"]]]]);
            $this->open("/rules/{$draft['id']}");
            $this->press('Put in force…');
            $this->see('dialog, [role=dialog]', '2 tickets');
            $this->browser->executeScript(
                "[...document.querySelectorAll('label')].find((label) => label.textContent.includes('{$way}')).click()",
            );
            if ($fired > 0) {
                $this->see('input[aria-label=Hours]')->clear()->sendKeys('0');
            }
            $this->press('Put in force', 'dialog button, [role=dialog] button');
            $this->see('[role=status]', 'is in force');
            $this->until(
                fn (): bool => count(array_filter(
                    $tickets,
                    fn (int $id): bool => str_contains(json_encode($this->api('GET', "records/ticket/{$id}/account")) ?: '', "by {$way}"),
                )) === $fired,
                "{$way}: {$fired} to be started",
            );
        }
        // A change of one of them: only the rule that left it alone has something to say.
        $this->api(
            'PATCH',
            "records/ticket/{$tickets[0]}",
            ['version' => $this->api('GET', "records/ticket/{$tickets[0]}")['version'], 'values' => ['cost' => '5']],
        );
        $this->open("/records/ticket/{$tickets[0]}");
        $this->see('[data-kind=comment]', 'by Leave them');
        $this->notSee('[data-kind=comment]', 'by Count them as done');
    }

    private function writeTheChase(): void
    {
        $this->tab('Rules');
        $this->press('New rule');
        $this->choose('Tickets');
        $this->see('[aria-label="Name of the rule"]')->sendKeys('Ask again'.WebDriverKeys::ENTER);
        $this->saved();
        $this->press('+ condition');
        $this->take('Status');
        $this->choose('Waiting on customer');
        $this->saved();
        $this->press('+ a line');
        $this->take('Remind');
        $this->see('.floating #title')->sendKeys('Ask again'.WebDriverKeys::ENTER);
        $this->notSee('.floating');
        $this->saved();
        $this->see('[data-row="/lines/0"] button.when', 'at once')->click();
        $this->see('.floating select[aria-label=When]')->act(
            static fn (WebDriverElement $select) => (new WebDriverSelect($select))->selectByVisibleText('every so often'),
        );
        $this->see('.floating input[aria-label=Amount]')->clear()->sendKeys('2');
        $this->see('.floating input[aria-label=Times]')->clear()->sendKeys('9'.WebDriverKeys::ENTER);
        $this->notSee('.floating');
        $this->see('[data-row="/lines/0"] .m', 'each 2 days');
        $this->press('+ what ends it early');
        $this->choose('something arrives');
        $this->see('[data-row^="/until"]', 'gets a reply');
        $this->press('+ quiet hours');
        $this->see('.floating input[aria-label=From]');
        $this->press('Done', '.floating button');
        $this->saved();
        self::assertSame([
            'a Ticket is created or changed', 'all of', 'Status is Waiting on customer', 'when the conditions become '
                .'true', 'Remind the owner “Ask again”, every 2 days, at most 9 times',
            'all of', 'it gets a reply', 'outside 08:00–18:00',
        ], array_map(static fn (string $row): string => str_replace(' , ', ', ', $row), $this->rows()));
        $this->press('Put in force…');
        $this->press('Put in force', 'dialog button, [role=dialog] button');
        $this->see('[role=status]', 'is in force');
    }

    /** A ticket that waits for its contact from now on, opened. */
    private function waiting(string $subject, int $contact): int
    {
        $ticket = $this->ticket(['subject' => $subject, 'contact' => $contact]);
        $this->api(
            'PATCH',
            "records/ticket/{$ticket}",
            ['version' => $this->api('GET', "records/ticket/{$ticket}")['version'], 'values' => ['status' => 'waiting']],
        );
        $this->open("/records/ticket/{$ticket}");
        $this->see('h1', $subject);

        return $ticket;
    }

    private function turn(string $by): void
    {
        if ($this->browser->findElements(WebDriverBy::cssSelector('.floating')) === []) {
            $this->press('Turn forward');
        }
        $this->press($by, '.floating button');
        // A week is some seven hundred steps.
        for ($patience = 0; $patience < 6; $patience++) {
            try {
                $this->see('.clock .turn', 'Turning');
            } catch (\PHPUnit\Framework\AssertionFailedError) {
                break;
            }
            try {
                $this->see('.clock .turn', 'Turn forward');
                break;
            } catch (\PHPUnit\Framework\AssertionFailedError) {
                // Still turning.
            }
        }
        $this->see('.clock .turn', 'Turn forward');
        $this->see('.floating', 'into ink');
    }

    /** @param  array<string, mixed>  $values */
    private function ticket(array $values): int
    {
        return $this->api(
            'POST',
            'records/ticket',
            [
                'values' => $values + [
                    'customer' => 1, 'status' => 'open', 'priority' => 'normal', 'owner' => $this->api('GET', 'session')['id'],
                ],
            ],
        )['record']['id'];
    }

    /** @param  array<string, mixed>  $file */
    private function inForce(array $file): void
    {
        $rule = $this->api('POST', 'rules', ['file' => $file]);
        $this->api('POST', "rules/{$rule['id']}/publish", ['version' => $rule['draftVersion']]);
    }
}
