<script lang="ts">
    import type { Document } from '../../state/document.svelte';
    import { session } from '../../state/session.svelte';
    import ValueInput from '../ValueInput.svelte';
    import OfferEditor from './OfferEditor.svelte';

    /* One recipient of a message: somebody found from the record, a team, or an address. */
    type Props = { document: Document; at: string; onclose: () => void };
    let { document: page, at, onclose }: Props = $props();
    let typing = $state(false);
    const there = $derived(page.at(at) !== undefined);
    const address = $derived(String((page.at(at) as { address?: string } | undefined)?.address ?? ''));

    function further(key: string) {
        if (key === ':address') typing = true;
        else {
            void page.remove(at);
            onclose();
        }
    }
</script>

{#if typing}
    <ValueInput
        field={{ ...session.type(page.type).fields[0]!, type: 'text', label: 'E-mail address or phone number', currency: null }}
        value={address}
        ondone={(typed) => {
            void page.put(at, { kind: 'address', address: typed.trim() });
            onclose();
        }}
    />
{:else}
    <OfferEditor
        document={page}
        {at}
        title="To whom"
        further={[
            { key: ':address', label: 'an address…', group: 'Anybody' },
            ...(there ? [{ key: ':remove', label: 'remove this one', group: 'Anybody' }] : []),
        ]}
        onfurther={further}
        {onclose}
    />
{/if}
