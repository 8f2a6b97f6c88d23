<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverDimension;
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
                'subject' => "{$name} {$which}", 'customer' => 1, 'stage' => 'draft', 'amount' => '1000', 'discount' => '10',
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
        $this->see('[data-sign-off]', "{$name} Three");
        $this->see('.leaf.left input[type=search]')->sendKeys("{$name} Two");
        $this->notSee('[data-sign-off]', "{$name} Three");
        $this->see('[data-sign-off]', "{$name} Two")->act(static fn ($row) => $row->findElement(
            WebDriverBy::cssSelector('button'),
        )->click());
        $this->see('.leaf.right q', 'Too much');
        $this->press("{$name} Two", '.leaf.right h2 a');
        $this->see('[data-kind=sign_off]', 'Clea Harrow answered a sign-off');
        $this->see('[data-kind=sign_off]', 'Too much');
        $this->see('[data-kind=signed_off]', 'A sign-off is declined');
    }

    public function test_it_is_reminded_of_goes_up_is_corrected_and_agreed_to_while_the_record_is_locked(): void
    {
        $this->signIn('ines.okafor');
        $name = $this->asks('by the owner’s manager, who may correct Discount, within 4 hours, reminded every 2 hours, and then ask '
            .'the next person up; the record is locked meanwhile and rules look again afterwards');
        $quote = $this->quote("{$name} One");
        $this->open("/records/quote/{$quote}");
        $this->see('.leaf.left .stamp', 'locked');
        $this->see('.leaf.left .callout', 'Clea Harrow still must say whether to sign it off');
        $this->see('.leaf.right [data-sign-off] .pencilled', 'Clea Harrow');
        $this->notSee('.leaf.left button', 'Edit');
        foreach (range(1, 5) as $hour) {
            $this->turnAnHour();
        }
        $this->open("/records/quote/{$quote}");
        $this->see('.leaf.right [data-sign-off] .pencilled', 'Viktor Sand');
        $this->see('[data-kind=sign_off]', 'Clea Harrow is reminded');
        $this->see('[data-kind=sign_off]', 'Viktor Sand is asked instead of Clea Harrow');
        $this->signOut();

        $this->signIn('viktor.sand');
        // Where the case is, on a phone.
        $this->browser->manage()->window()->setSize(new WebDriverDimension(390, 844));
        $this->open("/records/quote/{$quote}");
        $this->see('[data-waits]', 'Asked by Ines Okafor');
        $this->press('Agree…', '[data-waits] button');
        $this->see('dialog #field-discount')->clear()->sendKeys('8');
        $this->see('dialog textarea')->sendKeys('At eight');
        $this->press('Agree', 'dialog button.go');
        $this->see('[role=status]', '1 sign-off agreed to.');
        $this->notSee('[data-waits]');
        $this->browser->manage()->window()->setSize(new WebDriverDimension(1280, 800));
        $this->open("/records/quote/{$quote}");
        $this->see('[data-field=discount] dd', '8');
        $this->see('.leaf.left button', 'Edit');
        $this->notSee('.leaf.left .stamp', 'locked');
        $this->see('[data-kind=sign_off]', 'Viktor Sand agreed: “At eight”');
    }

    public function test_a_question_goes_to_and_fro_and_five_are_decided_at_once(): void
    {
        $this->signIn('ines.okafor');
        $name = $this->asks('by the owner’s manager, within 3 working days');
        foreach (range(1, 5) as $nth) {
            $this->quote("{$name} {$nth}");
        }
        $this->signOut();
        $this->signIn('clea.harrow');
        $this->open('/sign-offs');
        $this->see('[data-sign-off] button', "{$name} 3")->click();
        $this->see('.leaf.right h2', "{$name} 3");
        $this->press('Ask first…', '.leaf.right button');
        $this->see('dialog textarea')->sendKeys('Do they stay?');
        $this->press('Ask', 'dialog button.go');
        $this->see('.leaf.right [aria-label="Where it stands"]', 'time stands still');
        $this->signOut();
        $this->signIn('ines.okafor');
        $this->open('/sign-offs');
        $this->press('I asked', '.segments button');
        $this->see('[data-sign-off] .stamp', 'asks you');
        $this->see('[data-sign-off] button', "{$name} 3")->click();
        $this->press('Answer the question…', '.leaf.right button');
        $this->see('dialog q', 'Do they stay?');
        $this->see('dialog textarea')->sendKeys('Three years');
        $this->press('Answer', 'dialog button.go');
        $this->see('.leaf.right q', 'Three years');
        $this->signOut();
        $this->signIn('clea.harrow');
        $this->open('/sign-offs');
        foreach (range(1, 5) as $nth) {
            $this->see("[aria-label='Choose: {$name} {$nth}']")->click();
        }
        $this->press('Agree…', '.leaf.left button');
        $this->see('dialog h2', '5 sign-offs');
        $this->press('Agree', 'dialog button.go');
        $this->see('[role=status]', '5 sign-offs agreed to.');
        $this->notSee('[data-sign-off]', $name);
    }

    public function test_it_is_decided_from_the_letter_on_a_phone(): void
    {
        $this->signIn('ines.okafor');
        $name = $this->asks('by the owner’s manager, within 3 working days');
        $this->quote("{$name} One");
        $letter = $this->until(
            fn (): ?array => $this->api('GET', 'mail-room?search='.rawurlencode("{$name} One"))['letters'][0] ?? null,
            'for the letter to arrive',
        );
        $open = $this->api('GET', "mail-room/{$letter['id']}");
        self::assertSame(1, preg_match('#/decide/([a-f0-9-]+)#', $open['html'], $found), 'the letter leads to its case');
        $this->signOut();
        $window = $this->browser->manage()->window();
        $before = $window->getSize();
        $window->setSize(new WebDriverDimension(390, 844));
        try {
            $this->open("/decide/{$found[1]}");
            $this->see('h1', 'Your sign-off is wanted');
            $this->see('main', "{$name} One");
            $this->notSee('.spine');
            self::assertSame(0, $this->browser->executeScript(
                'return Math.max(0, document.documentElement.scrollWidth - document.documentElement.clientWidth)',
            ), 'nothing reaches over the edge of a phone');
            $this->press('Decline', 'main button');
            self::assertFalse($this->see('main button', 'Decline it now')->isEnabled(), 'a no needs its reason');
            $this->press('Agree', 'main button');
            $this->see('main textarea')->sendKeys('From the train');
            $this->press('Agree to it now', 'main button');
            $this->see('h1', 'You have agreed.');
            $this->open("/decide/{$found[1]}");
            $this->see('h1', 'You have agreed.');
            $this->notSee('main button');
            $this->open('/decide/'.substr($found[1], 0, -1).'x');
            $this->see('h1', 'Nothing can be decided here.');
        } finally {
            $window->setSize($before);
        }
        $this->signIn('ines.okafor');
        $this->open('/sign-offs');
        $this->press('I asked', '.segments button');
        $this->see('[data-sign-off] button', "{$name} One")->click();
        $this->see('.leaf.right q', 'From the train');
    }

    /** Puts a rule in force that asks for a sign-off on new quotes of a name. */
    private function asks(string $by): string
    {
        $name = 'Peat '.bin2hex(random_bytes(4));
        $read = $this->api('POST', 'text/rule', ['text' => "Rule “{$name}”\nWhen a Quote is created\n"
            ."Only if Subject contains \"{$name}\"\nFires once per quote\nAsk for a sign-off because \"{discount} off\" {$by}\n"]);
        self::assertSame([], $read['misread'] ?? [], json_encode($read['misread'] ?? []));
        $rule = $this->api('POST', 'rules', ['file' => $read['file']]);
        $this->api('POST', "rules/{$rule['id']}/publish", ['version' => $rule['draftVersion']]);

        return $name;
    }

    private function quote(string $subject): int
    {
        return $this->api('POST', 'records/quote', ['values' => [
            'subject' => $subject, 'customer' => 1, 'stage' => 'draft', 'amount' => '1000', 'discount' => '10', 'owner' => 'jonas.pike',
        ]])['record']['id'];
    }

    private function turnAnHour(): void
    {
        $this->api('POST', 'clock/turn', ['by' => 'hour']);
        $stands = fn (): bool => ($this->api('GET', 'clock')['turn']['turning'] ?? false) === false;
        $this->until($stands, 'for the clock to stand where it was turned to');
    }
}
