<script lang="ts">
    import type { AnyDocument } from '../../state/document.svelte';
    import type { Word } from '../words';
    import ChooseEditor from './ChooseEditor.svelte';
    import FormEditor from './FormEditor.svelte';
    import FormulaEditor from './FormulaEditor.svelte';
    import NumberEditor from './NumberEditor.svelte';
    import TextEditor from './TextEditor.svelte';
    import TimetableEditor from './TimetableEditor.svelte';
    import ValueEditor from './ValueEditor.svelte';

    /* Changes one word in place, with the editor that the server says. */
    type Props = { document: AnyDocument; word: Word; onclose: () => void };
    let { document: page, word, onclose }: Props = $props();
    const editors = {
        choose: ChooseEditor,
        value: ValueEditor,
        text: TextEditor,
        number: NumberEditor,
        form: FormEditor,
        formula: FormulaEditor,
        timetable: TimetableEditor,
    };
    const sort = $derived(word.editor?.sort ?? 'choose');
    const Editor = $derived(sort === 'begin' || sort === 'letter' ? null : editors[sort]);
    /** Something else than what the editor gives was asked for. */
    let others = $state(false);
</script>

{#if others}
    <ChooseEditor document={page} {word} {onclose} />
{:else if Editor && word.editor && word.at !== null}
    <Editor document={page} {word} editor={word.editor} at={word.at} {onclose} onother={() => (others = true)} />
{/if}
