<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Tests\Browser\Support\BrowserTestCase;

/** What an administrator does around a rule: files, pages, setup, the ledger, and finding things. */
final class AdministrationTest extends BrowserTestCase
{
    public function test_a_rule_comes_in_as_a_file_and_gets_a_second_page(): void
    {
        $this->signIn('joost.perrin');
        $this->tab('Rules');
        $this->press('Import');
        $file = ['format' => 'vivid-ledger/rule/1', 'name' => 'Dear contacts', 'on' => 'contact', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'viktor.sand'], 'title' => 'Write to {name}',
                'due' => ['amount' => 1, 'unit' => 'week']]]];
        $this->see('dialog textarea')->sendKeys((string) json_encode($file));
        $this->press('Import as a draft');
        $this->see('.stamp', 'Draft, page 1');
        $this->see('[aria-label="Name of the rule"]');
        self::assertSame(
            ['a Contact is created', 'always', 'every time', 'Give Viktor Sand a task “Write to {name}” due 1 week later'],
            $this->rows(),
        );
        $this->press('Put in force…');
        $this->see('dialog', 'The conditions hold now for 0 contacts of 0.');
        $this->press('Put in force');
        $this->see('.stamp', 'In force');

        // The next page is written beside the one in force.
        $this->word('1 week later');
        $this->press('No due date');
        $this->see('.stamp', 'Draft, page 2');
        $this->see('.sub', 'page 1: in force');
        $this->saved();
        $this->press('Publish page 2…');
        $this->press('Put in force');
        $this->see('.sub', 'page 2');
        $this->press('Pages 2', '[role=tab]');
        $this->see('.leaf.right', 'give Viktor Sand a task “Write to {name}” due at no set time.');
        $this->see('.leaf.right', 'give Viktor Sand a task “Write to {name}” due 1 week later.');
        $exported = (string) $this->see('a[href^="/api/rules/"][href$="page=1"]')->getAttribute('href');
        $cookies = implode(
            '; ',
            array_map(static fn ($cookie): string => $cookie->getName().'='.$cookie->getValue(), $this->browser->manage()->getCookies()),
        );
        $text = (string) file_get_contents(
            str_starts_with($exported, 'http') ? $exported : getenv('BROWSER_URL').$exported,
            false,
            stream_context_create([
                'http' => ['header' => "Cookie: {$cookies}\r\nReferer: ".getenv('BROWSER_URL').'/', 'ignore_errors' => true],
            ]),
        );
        self::assertSame($file['lines'], json_decode($text, true)['lines'] ?? $text);
    }

    public function test_who_stands_in_is_chosen_and_the_ledger_is_followed(): void
    {
        $this->signIn('ines.okafor');
        $this->tab('Setup');
        $this->see('select')->sendKeys('Ulla Verne');
        $this->see('[role=status]', 'Saved.');
        $this->browser->navigate()->refresh();
        $this->until(
            fn (): bool => str_starts_with(
                (string) $this->browser->executeScript('return document.querySelector("select")?.selectedOptions[0]?.text'),
                'Ulla Verne',
            ),
            'for what was kept',
        );
        $this->see('select')->sendKeys('Tomas Weld');
        $this->press('Tickets', '[role=tab]');
        $this->see('.leaf.right', 'Waiting since');

        $this->tab('Ledger');
        $this->press('Administration', '.segments button');
        $this->see('[data-number]', 'put in force, page 1');
        $this->press('Edits', '.segments button');
        $this->see('[data-number]', 'created T-')->click();
        $this->see('.leaf.right', 'What the rules made of it');
        $this->see('[data-answers]', 'did not fire');
        $this->tab('Today');
        $this->see('.leaf.left ul', 'fired today');
        $this->see('.leaf.left a', 'Stamp waiting since');
        $this->press('My day', '.segments button');
        $this->see('figure [title]');
        self::assertCount(14, $this->browser->findElements(WebDriverBy::cssSelector('figure [title]')));
        $this->open('/no/such/place');
        $this->see('h2', 'There is nothing at this address.');
        $this->open('/records/ticket/99999');
        $this->see('.empty', 'There is no ticket T-99999.');
    }

    public function test_it_holds_at_other_widths(): void
    {
        $this->signIn('ines.okafor');
        foreach ([1024, 1920] as $width) {
            $this->browser->manage()->window()->setSize(new \Facebook\WebDriver\WebDriverDimension($width, 943));
            foreach (['/' => '.leaf.left ul li', '/records/ticket' => 'table.ledger tbody tr', '/records/ticket/1' => '[data-entry]',
                '/rules' => 'a.line', '/rules/1' => '[data-word]', '/tasks' => 'h1', '/ledger' => '[data-number]', '/setup' => 'select',
                '/profile' => 'form'] as $path => $shown) {
                $this->open($path);
                $this->see($shown);
                $wide = $this->browser->executeScript('return [document.documentElement.scrollWidth, innerWidth]');
                self::assertLessThanOrEqual($wide[1], $wide[0], "{$path} at {$width} is not cut");
                $nameless = $this->browser->executeScript(
                    'return [...document.querySelectorAll("button, a[href], input, select, textarea")].filter((e) => e.offsetParent && '
                        .'!(e.innerText?.trim() || e.getAttribute("aria-label") || e.title || e.labels?.length)).map((e) => '
                            .'e.outerHTML.slice(0, 120))',
                );
                self::assertSame([], $nameless, "{$path}: everything that can be used has a name");
            }
        }
    }
}
