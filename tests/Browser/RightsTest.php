<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverSelect;
use Tests\Browser\Support\BrowserTestCase;

/** A role is made by pointing, somebody is given it, and from then on sees their team and no more. */
final class RightsTest extends BrowserTestCase
{
    public function test_a_member_who_sees_only_their_team(): void
    {
        $mark = 'x'.bin2hex(random_bytes(3));
        $this->signIn('ines.okafor');
        $people = array_column($this->api('GET', 'people'), 'id', 'handle');
        $customer = $this->api('GET', 'records/customer?perPage=1')['rows'][0]['id'];
        foreach (['bram.castellan' => 'near', 'teo.marsh' => 'far'] as $owner => $where) {
            $ids[$where] = $this->api('POST', 'records/ticket', ['values' => [
                'subject' => "Fern {$where} {$mark}", 'priority' => 'normal', 'status' => 'open', 'customer' => $customer,
                'owner' => $people[$owner],
            ]])['record']['id'];
        }
        $this->open('/setup/roles');
        $this->press('New role');
        $this->see('[aria-label="Name of the role"]')->sendKeys("Desk {$mark}");
        $this->pick('[aria-label="Give a record type rights of its own"]', 'Tickets');
        $this->pick('[aria-label="Tickets: See"]', 'their team’s');
        $this->pick('[aria-label="Tickets: Delete"]', 'everybody’s');
        $this->see('footer', 'Tickets: Delete – their team’s');
        $this->pick('[aria-label="Tickets: Delete"]', 'nobody’s');
        $this->pick('[aria-label="Tickets: Change"]', 'their own');
        $this->pick('[aria-label="Of which records"]', 'Tickets');
        $this->pick('[aria-label="Which field"]', 'Cost');
        $this->press('Keep it from them');
        $this->press('Save');
        $this->see('[role=status]', 'is saved');

        $name = array_column($this->api('GET', 'roles')['roles'], 'name', 'label')["Desk {$mark}"];
        $this->api('PATCH', "people/{$people['sefa.dorn']}", ['role' => $name]);
        try {
            $this->open('/setup/people');
            $this->see('[aria-label="Search people"]')->sendKeys('Sefa');
            $this->press('Sefa Dorn Service Quayside Priya Lindqvist –');
            $this->press('What may they?');
            $this->see('.rights', 'Tickets');
            $this->see('p', 'Hidden of tickets: Cost');
            $this->see('[aria-label="Number of a record"]')->sendKeys("T-{$ids['far']}");
            $this->press('May they?');
            $this->see('.scroll', 'Teo Marsh’s, who is in Sales Birchmoor, not in Service Quayside');
            $this->signOut();

            $this->signIn('sefa.dorn');
            $this->notSee('.spine a', 'Ledger');
            $this->open("/records/ticket?search={$mark}");
            $this->see('.scroll', "Fern near {$mark}");
            $this->notSee('.scroll', "Fern far {$mark}");
            $this->open("/records/ticket/{$ids['near']}");
            $this->see('h1', "Fern near {$mark}");
            $this->notSee('button[title="Edit (E)"]');
            $this->notSee('dt, label, span', 'Cost');
            $this->open("/records/ticket/{$ids['far']}");
            $this->see('.empty', 'It cannot be opened.');
            foreach (['/', '/rules', '/tasks', '/setup', '/slips'] as $path) {
                $this->open($path);
                $this->see('h1');
                self::assertStringNotContainsString("Fern far {$mark}", $this->browser->findElement(WebDriverBy::tagName('body'))
                    ->getText());
            }
        } finally {
            $this->signOut();
            $this->signIn('ines.okafor');
            $this->api('PATCH', "people/{$people['sefa.dorn']}", ['role' => 'member']);
            $this->api('DELETE', "roles/{$name}");
        }
    }

    private function pick(string $css, string $label): void
    {
        $this->until(function () use ($css, $label): bool {
            $found = $this->browser->findElements(WebDriverBy::cssSelector($css));
            if ($found === [] || ! str_contains($found[0]->getText(), $label)) {
                return false;
            }
            (new WebDriverSelect($found[0]))->selectByVisibleText($label);

            return true;
        }, "to pick “{$label}” in {$css}");
    }
}
