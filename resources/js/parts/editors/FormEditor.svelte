<script lang="ts">
    import type { AnyDocument } from '../../state/document.svelte';
    import type { Editor, Word } from '../words';
    import { choicesOf } from './choices';
    import Form from './Form.svelte';

    /* A few small fields together. */
    type Props = { document: AnyDocument; word: Word; editor: Editor; at: string; onclose: () => void; onother: () => void };
    let { document: page, word, editor, at, onclose, onother }: Props = $props();
    const choices = choicesOf(
        () => page,
        () => word,
    );
</script>

{#if choices.data}
    <Form document={page} {editor} {at} ways={choices.data.ways} {onclose} {onother} />
{:else}
    <p class="w-[400px] p-4 text-[13px] text-ink-3">Looking…</p>
{/if}
