import assert from 'node:assert/strict';
import { test } from 'node:test';
import { rowsOfCards } from '../../resources/js/screens/import/contactCards';

const card = (...lines: string[]) => ['BEGIN:VCARD', 'VERSION:4.0', ...lines, 'END:VCARD'].join('\r\n');

test('cards become the rows of a table, with what any of them says', () => {
    const rows = rowsOfCards(
        [
            card('FN:Marit Solheim', 'EMAIL;TYPE=home:old@b.example', 'EMAIL;PREF=1:marit@b.example', 'TEL;VALUE=uri:tel:+49-30-5550-1'),
            card('N:Lindqvist;Åsa;;;', 'ORG:Brine Works;Garden', 'TITLE:Head\\, gardens', 'NOTE:Rings\\nat nine'),
        ].join('\r\n'),
    );
    assert.deepEqual(rows, [
        ['Name', 'Email', 'Phone', 'Organisation', 'Role', 'Notes'],
        ['Marit Solheim', 'marit@b.example', '+49-30-5550-1', '', '', ''],
        ['Åsa Lindqvist', '', '', 'Brine Works', 'Head, gardens', 'Rings\nat nine'],
    ]);
});

test('a semicolon is a semicolon, and the most preferred comes first', () => {
    const said = card(
        'FN:Dr.\\; Büro',
        'ORG:Brine\\; Works;Garden',
        'EMAIL;PREF=100:last@b.example',
        'EMAIL:none@b.example',
        'EMAIL;PREF=1:best@b.example',
    );
    assert.deepEqual(rowsOfCards(said), [
        ['Name', 'Email', 'Organisation'],
        ['Dr.; Büro', 'best@b.example', 'Brine; Works'],
    ]);
});

test('an older card is read as well, folded lines and names in any script', () => {
    const old = ['BEGIN:VCARD', 'VERSION:3.0', 'FN:שרה', ' 🌿', 'TEL;TYPE=CELL,pref:+47 1', 'END:VCARD', ''].join('\n');
    assert.deepEqual(rowsOfCards(old), [
        ['Name', 'Phone'],
        ['שרה🌿', '+47 1'],
    ]);
});

test('what is no card is refused', () => {
    for (const odd of ['', 'name,email\nx,y', 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR', 'BEGIN:VCARD\r\nFN:x'])
        assert.throws(() => rowsOfCards(odd));
});
