<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** A sign-off from the rule that asks for it to what follows: written, asked, agreed to by key, declined with a reason, withdrawn. */
final class SignOffTest extends BrowserTestCase
{
    public function test_a_rule_asks_and_people_decide(): void
    {
        $this->signIn('ines.okafor');
        $name = 'Peat '.bin2hex(random_bytes(4));
        $text = "When a Quote is created\nOnly if Subject contains \"{$name}\"\nFires once per quote\n"
            ."Ask for a sign-off because \"{discount} off\" by the owner’s manager, within 3 working days, known as \"asked\"\n"
            ."Once \"asked\" is agreed: Set Stage to Sent\n";
        $read = $this->api('POST', 'text/rule', ['text' => "Rule “{$name}”\n{$text}"]);
        $rule = $this->api('POST', 'rules', ['file' => $read['file']]);
        $this->open("/rules/{$rule['id']}");
        $this->see('.leaf', 'Ask for a sign-off because');
        $this->press('Put in force…');
        $this->press('Put in force', 'dialog button');
        $this->see('.stamp', 'In force');
        foreach (['One', 'Two', 'Three', 'Four'] as $which) {
            $this->api('POST', 'records/quote', ['values' => [
                'subject' => "{$name} {$which}", 'customer' => 1, 'stage' => 'draft', 'amount' => '1000', 'discount' => '20',
                'owner' => 'jonas.pike',
            ]]);
        }
        $this->open('/sign-offs');
        $this->press('I asked', '.segments button');
        $this->see('[data-sign-off]', "{$name} Four");
        $this->see('.leaf.right [aria-label="Where it stands"] .pencilled', 'Clea Harrow');
        $this->press('Withdraw…');
        $this->press('Withdraw', 'dialog button');
        $this->see('[data-sign-off] .stamp', 'withdrawn');

        $this->signOut();
        $this->signIn('clea.harrow');
        $this->see('.spine a[href="/sign-offs"] .count');
        $this->see('.spine a', 'Sign-offs')->click();
        $this->see('[data-sign-off] button', "{$name} One")->click();
        $this->see('.leaf.right h2', "{$name} One");
        $this->see('.leaf.right dd', '1,000');
        $this->keys(Key::CONTROL.'k');
        $this->see('[role=dialog] input');
        $this->keys('y', Key::ESCAPE);
        $this->notSee('textarea');
        $this->see('body')->sendKeys('n');
        $this->see('textarea');
        $focus = fn (): string => (string) $this->browser->switchTo()->activeElement()->getTagName();
        $this->until(fn (): bool => $focus() === 'textarea', 'for the reason to take the keyboard');
        $this->keys(Key::ESCAPE);
        $this->notSee('textarea');
        $this->see('body')->sendKeys('y');
        $this->see('textarea')->sendKeys('Good customer');
        $this->press('Agree', 'dialog button.go');
        $this->see('[role=status]', '1 sign-off agreed to.');
        $this->notSee('[data-sign-off]', "{$name} One");
        foreach (['Two', 'Three'] as $which) {
            $this->see("[aria-label='Choose: {$name} {$which}']")->click();
        }
        $this->press('Decline…', '.leaf.left button');
        $this->see('dialog li', "{$name} Three");
        self::assertFalse($this->see('dialog button.danger')->isEnabled(), 'a no needs its reason');
        $this->see('textarea')->sendKeys('Too much');
        $this->keys(Key::CONTROL.Key::ENTER);
        $this->see('[role=status]', '2 sign-offs declined.');
        $this->notSee('[data-sign-off]', "{$name} Two");
        $this->press('I decided', '.segments button');
        $this->see('[data-sign-off]', "{$name} Two")->act(static fn ($row) => $row->findElement(
            WebDriverBy::cssSelector('button'),
        )->click());
        $this->see('.leaf.right q', 'Too much');
        $this->press("{$name} Two", '.leaf.right h2 a');
        $this->see('[data-kind=sign_off]', 'Clea Harrow answered a sign-off');
        $this->see('[data-kind=sign_off]', 'Too much');
        $this->see('[data-kind=signed_off]', 'A sign-off is declined');
    }

    private function signOut(): void
    {
        $this->api('DELETE', 'session');
    }
}
