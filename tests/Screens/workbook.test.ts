import assert from 'node:assert/strict';
import { test } from 'node:test';
import { strToU8, zipSync } from 'fflate';
import { firstShown, typed } from '../../resources/js/screens/import/workbook';

test('a number is the one that somebody typed', () => {
    const kept = ['0.30000000000000004', '19.990000000000002', '1234567', '-0.1', '1e3', '123456789012345', 'x'];
    assert.deepEqual(kept.map(typed), ['0.3', '19.99', '1234567', '-0.1', '1000', '123456789012345', 'x']);
});

test('a sheet that is hidden is not the one that is meant', () => {
    const workbook = (...sheets: string[]) =>
        zipSync({ 'xl/workbook.xml': strToU8(`<workbook><sheets>${sheets.join('')}</sheets></workbook>`), 'xl/other.xml': strToU8('x') });
    const sheet = (name: string, state = '') => `<sheet name="${name}" sheetId="1"${state ? ` state="${state}"` : ''} r:id="rId1"/>`;
    assert.equal(firstShown(workbook(sheet('A'))), 1);
    assert.equal(firstShown(workbook(sheet('Lists', 'hidden'), sheet('More', 'veryHidden'), sheet('Customers'))), 3);
    assert.equal(firstShown(workbook(sheet('Lists', 'visible'), sheet('Customers'))), 1);
    assert.equal(firstShown(workbook()), 1);
});
