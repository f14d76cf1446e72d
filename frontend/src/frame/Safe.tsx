import { Component, type ReactNode } from 'react'
import { Lost } from '@/shared/ui/Lost'

type Props = { at: string; children: ReactNode }

/** A page that fails to open, or breaks, says so and leaves the ways to others; `at` is its path. */
export class Safe extends Component<Props, { failed: boolean }> {
  override state = { failed: false }

  static getDerivedStateFromError() {
    return { failed: true }
  }

  override componentDidUpdate(before: Props) {
    // Another page, or this one left and come back to, is tried.
    if (before.at !== this.props.at && this.state.failed) this.setState({ failed: false })
  }

  override render() {
    return this.state.failed ? <Lost /> : this.props.children
  }
}
