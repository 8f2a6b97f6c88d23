<script lang="ts">
    import type { Document } from '../../state/document.svelte';
    import Choose from '../Choose.svelte';
    import { chooseSetField, textAt } from '../editors';
    import { ownFields } from '../offers';

    type Props = { document: Document; at: string; on: string; onclose: () => void };
    let { document: page, at, on, onclose }: Props = $props();
    // A gap before any field is chosen is seen from the rule's own records; the line knows better which it sets.
    const type = $derived(page.targetOf(at) ?? on);
</script>

<Choose
    title="Set"
    options={ownFields(type, (field) => !field.system && field.formula === null)}
    chosen={[textAt(page, at)]}
    onchoose={([name]) => {
        void chooseSetField(page, at, name ?? '', type);
        onclose();
    }}
    {onclose}
/>
