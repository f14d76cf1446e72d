import { Component, type ReactNode } from 'react'
import { Lost } from '@/shared/ui/Lost'

type Props = { at: string; children: ReactNode }

/** A page that fails to open, or breaks, says so and leaves the ways to others; `at` is its path. */
export class Safe extends Component<Props, { failedAt: string | null }> {
  override state = { failedAt: null as string | null }

  override componentDidCatch() {
    this.setState({ failedAt: this.props.at })
  }

  static getDerivedStateFromError() {
    return null
  }

  override render() {
    return this.state.failedAt === this.props.at ? <Lost /> : this.props.children
  }
}
