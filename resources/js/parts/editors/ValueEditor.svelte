<script lang="ts">
    import type { AnyDocument } from '../../state/document.svelte';
    import type { Json, JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';
    import FieldValue from '../FieldValue.svelte';
    import { MOMENTS, plainNumber } from '../offers';
    import type { Editor, Word } from '../words';
    import { choicesOf, optionsOf, take } from './choices';

    /* A value of a field, or what the server offers besides. */
    type Props = { document: AnyDocument; word: Word; editor: Editor; at: string; onclose: () => void };
    let { document: page, word, editor, at, onclose }: Props = $props();

    const field = $derived((editor.type && session.field(editor.type, editor.field ?? '')) || { ...plainNumber, label: editor.label });
    const choices = choicesOf(
        () => page,
        () => word,
    );
    const offers = $derived(choices.data?.offers ?? []);
    const further = $derived([...optionsOf(offers), ...(editor.mayBeEmpty ? [{ key: ':none', label: 'any value', group: 'Or' }] : [])]);
    const given = $derived.by((): Json[] => {
        const there = page.at(at);
        const value = editor.wrap ? wrapped(there) : there;
        if (Array.isArray(value)) return value;
        return value === undefined || value === null || typeof value === 'object' ? [] : [value];
    });

    function wrapped(there: Json | undefined): Json | undefined {
        const object = there as JsonObject | undefined;
        return object?.kind === editor.wrap ? object?.value : undefined;
    }

    function choose(values: Json[]) {
        const value = editor.many ? values : (values[0] ?? null);
        void page.put(at, editor.wrap ? { kind: editor.wrap, value } : value);
        onclose();
    }

    function chooseOther(key: string) {
        if (key === ':none') void page.remove(at);
        else void take(page, at, offers[Number(key.slice(1))]);
        onclose();
    }
</script>

{#if editor.others && !choices.data}
    <p class="w-[320px] p-4 text-[13px] text-ink-3">Looking…</p>
{:else}
    <FieldValue
        type={editor.type === word.on ? word.on : undefined}
        {field}
        many={editor.many}
        chosen={given}
        {further}
        typedFirst={!editor.wrap && !MOMENTS.includes(field.type)}
        onfurther={chooseOther}
        onchoose={choose}
        {onclose}
    />
{/if}
