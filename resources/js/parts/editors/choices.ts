import { createQuery } from '@tanstack/svelte-query';
import { api, ask, type Resources } from '../../api/client';
import type { AnyDocument } from '../../state/document.svelte';
import { at, put, split, type Json, type JsonObject } from '../../state/pointer';
import type { Option } from '../options';
import type { Word } from '../words';

/* What the server offers for a word, and what choosing it does to the rule file. No kind is known here. */
export type Offer = Resources['OfferedResource'];

export function choicesOf(document: () => AnyDocument, word: () => Word) {
    return createQuery(() => {
        const page = document();
        const { at: place, editor } = word();
        const asked = {
            file: page.file as JsonObject,
            at: place ?? '',
            by: editor?.sort ?? 'choose',
            on: page.isFilter ? page.type : null,
        };
        return {
            queryKey: ['offers', place, editor?.sort, JSON.stringify(page.file)],
            queryFn: () => ask(api.POST('/api/offers', { body: asked })),
            enabled: editor?.others === true || editor?.sort === 'form',
        };
    });
}

export function optionsOf(offers: Offer[]): Option[] {
    return offers.map((offer, index) => ({
        key: `:${index}`,
        label: offer.label,
        group: offer.group || undefined,
        hint: offer.hint || undefined,
    }));
}

/** Whether an offer is what stands there: the server says so, or its value does. */
export function isThere(page: AnyDocument, place: string, offer: Offer): boolean {
    if (offer.isChosen !== null) return offer.isChosen;
    const here = page.at(offer.at ?? place) ?? null;
    const value = (offer.value ?? null) as Json;
    if (JSON.stringify(value) === JSON.stringify(here)) return true;
    // What says more than its offer is still of the sort it began with.
    const on = (one: Json) => (one as JsonObject | null)?.on;
    return typeof value === 'object' && typeof here === 'object' && on(value) !== undefined && on(value) === on(here);
}

/** Chooses an offer; what is chosen again stays as it is. */
export function take(page: AnyDocument, place: string, offer: Offer | undefined): Promise<void> {
    if (!offer || isThere(page, place, offer)) return Promise.resolve();
    const to = offer.at ?? place;
    return page.edit((file) => {
        const value = (offer.value ?? undefined) as Json | undefined;
        put(file, to, offer.merge ? { ...((at(file, to) ?? {}) as JsonObject), ...(value as JsonObject) } : value);
        besides(file, offer);
    });
}

export function besides(file: object, offer: Offer): void {
    for (const [pointer, value] of Object.entries(offer.also)) put(file, pointer, (value ?? undefined) as Json | undefined);
}

/** Takes what stands at a place away, with the keys beside it that say nothing without it, and the object that is left empty. */
export function leaveOut(file: object, place: string, clears: string[] = []): void {
    const [around] = split(place);
    for (const pointer of [place, ...clears.map((key) => `${around}/${key}`)])
        if (at(file, pointer) !== undefined) put(file, pointer, undefined);
    const rest = around === '' ? null : at(file, around);
    if (rest !== null && typeof rest === 'object' && !Array.isArray(rest) && Object.keys(rest).length === 0) put(file, around, undefined);
}
