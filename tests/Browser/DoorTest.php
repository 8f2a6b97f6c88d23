<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Store\Access\SecondFactor;
use Facebook\WebDriver\WebDriverBy;
use Tests\Browser\Support\BrowserTestCase;

/** Somebody is invited, comes in by the letter, takes a second factor, and signs in with it. */
final class DoorTest extends BrowserTestCase
{
    private const PASSWORD = 'four ferns by the door';

    public function test_from_an_invitation_to_a_second_factor(): void
    {
        $mark = bin2hex(random_bytes(4));
        $email = "kim.{$mark}@larkmoss.example";
        $this->signIn('ines.okafor');
        $this->open('/setup/people');
        $this->press('Invite many');
        $this->see('form textarea')->sendKeys("name,email\nAda Reed,nobody");
        $this->see('[role=alert]', 'Line 2: ‘nobody’ is no e-mail address.');
        $this->see('form textarea')->sendKeys("@reed.example\nBo Reed,bo@reed.example");
        $this->see('button', 'Invite 2 people');
        $this->press('Invite');
        $this->see('form label input[type=text]')->sendKeys("Kim {$mark}");
        $this->see('form input[type=email]')->sendKeys('ines.okafor@larkmoss.example');
        $this->press('Send the invitation');
        $this->see('[role=alert]', 'Somebody has that address already.');
        $this->see('form input[type=email]')->clear()->sendKeys($email);
        $this->press('Send the invitation');
        $this->see('[role=status]', "Kim {$mark} is invited.");
        $this->see('.callout', 'has not come in yet');
        $this->open('/mail-room');
        $this->see('[data-letter]', "Kim {$mark}")->click();
        $this->see('.scroll', '/welcome/');
        $text = $this->browser->findElement(WebDriverBy::cssSelector('main'))->getText();
        self::assertSame(1, preg_match('#/welcome/[\w-]{43}#', $text, $link), $text);
        $this->signOut();
        $this->open($link[0]);
        $this->see('h1', 'Welcome, Kim');
        $this->see('#password')->sendKeys('larkmoss2026');
        $this->press('Sign in');
        $this->see('[role=alert]', 'the name of the company');
        $this->see('#password')->clear()->sendKeys(self::PASSWORD);
        $this->press('Sign in');
        $this->see('.spine');
        $this->open('/profile');
        $this->see('h1', "Kim {$mark}");
        $this->press('Set it up');
        $this->see('form svg');
        $secret = str_replace(' ', '', $this->see('form b.figures')->getText());
        $this->see('input[autocomplete=one-time-code]')->sendKeys(SecondFactor::code($secret, intdiv(time(), 30)));
        $this->see('form:has(svg) input[type=password]')->sendKeys(self::PASSWORD);
        $this->press('Ask for codes from now on');
        $this->see('.callout li');
        $recovery = $this->see('.callout li')->getText();
        $this->signOut();
        $this->open('/');
        $this->see('#email')->sendKeys($email);
        $this->see('#password')->sendKeys(self::PASSWORD);
        $this->press('Sign in');
        $this->see('#code')->sendKeys('000000');
        $this->press('Sign in');
        $this->see('[role=alert]', 'That code is not right');
        $this->see('#code')->clear()->sendKeys($recovery);
        $this->press('Sign in');
        $this->see('.spine');
        $this->open('/profile');
        $this->see('p', '9 recovery codes are left');
    }

    public function test_somebody_leaves_hands_over_and_is_back(): void
    {
        $mark = bin2hex(random_bytes(4));
        $this->signIn('ines.okafor');
        $kim = $this->api('POST', 'people', [
            'name' => "Kim {$mark}", 'email' => "kim.{$mark}@larkmoss.example", 'role' => 'member', 'team' => 'Service Quayside',
        ])['id'];
        $values = ['name' => "House {$mark}", 'owner' => $kim];
        $customer = $this->api('POST', 'records/customer', ['values' => $values])['record']['id'];
        $this->open('/setup/people');
        $this->see('.leaf.left button', "Kim {$mark}")->click();
        $this->press('Has left…');
        $this->see('form', 'To whoever takes over: 1 customer.');
        $this->see('form select')->sendKeys('Lena Abara');
        $this->press('Hand over and leave');
        $this->see('[role=status]', "Kim {$mark} has left.");
        $this->see('.callout', 'has left the company');
        $this->open("/records/customer/{$customer}");
        $this->see('[data-field=owner]', 'Lena Abara');
        $this->open('/setup/people');
        $this->see('.leaf.left button', "Kim {$mark}")->click();
        $this->press('Bring back');
        $this->see('[role=status]', 'Back.');
        $this->open("/records/customer/{$customer}");
        $this->see('[data-field=owner]', "Kim {$mark}");
    }
}
